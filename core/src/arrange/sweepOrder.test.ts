import { describe, expect, test } from 'vitest';
import { lookupOf } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { arrayAlong } from './align.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { changePlacement } from './lamps.ts';

/** Where each module of a lamp is across the vehicle, left positive, in the order of the sweep. */
function acrossInTurn(build: Build, ids: readonly string[]): number[] {
  const lookup = lookupOf(build);
  return build.placements
    .filter((p) => ids.includes(p.id))
    .flatMap((p) =>
      placeModules(lookup, p, new Set()).map(({ centre }, i) => ({
        y: centre[1],
        order: p.modules[i]?.order ?? 0,
      })),
    )
    .toSorted((a, b) => a.order - b.order)
    .map(({ y }) => y);
}
const falls = (ys: readonly number[]): boolean => ys.every((y, i) => i === 0 || y <= (ys[i - 1] ?? y) + 0.02);

describe('left and right of a sweep are those of one who stands behind the vehicle', () => {
  const stick = (zone: string): Build => put(emptyBuild(), 'a', { zone, fixture: 'stick-6', uM: 0, vM: 0 });

  test.each(['grille', 'rear-bumper'])('a stick on the %s', (zone) => {
    const ys = acrossInTurn(stick(zone), ['a']);
    expect(ys).toHaveLength(6);
    expect(falls(ys)).toBe(true);
  });

  test('a bar turned round on the roof is numbered the other way; one renumbered by hand is left alone', () => {
    const bar = put(emptyBuild(), 'a', { zone: 'roof', fixture: 'roof-bar-1200', uM: 0, vM: 0 });
    const turned = changePlacement(bar, 'a', { panDeg: 180 });
    expect(falls(acrossInTurn(bar, ['a']))).toBe(true);
    expect(falls(acrossInTurn(turned, ['a']))).toBe(true);
    expect(turned.placements[0]?.modules.map((m) => m.order)).not.toEqual(
      bar.placements[0]?.modules.map((m) => m.order),
    );
    const own = changeModules(
      bar,
      [{ placementId: 'a', moduleId: bar.placements[0]?.modules[0]?.id ?? '' }],
      {
        order: 40,
      },
    );
    const after = changePlacement(own, 'a', { panDeg: 180 });
    expect(after.placements[0]?.modules).toEqual(own.placements[0]?.modules);
  });

  test.each(['grille', 'rear-bumper'])('a row of heads filled along the %s', (zone) => {
    const one = put(emptyBuild(), 'a', { zone, uM: 0.1, vM: 0 });
    const row = arrayAlong(one, 'a', ['b', 'c', 'd']);
    const ys = acrossInTurn(row, ['a', 'b', 'c', 'd']);
    expect(ys).toHaveLength(4);
    expect(falls(ys)).toBe(true);
    expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(0.2);
  });
});
