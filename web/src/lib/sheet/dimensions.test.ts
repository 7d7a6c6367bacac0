import { describe, expect, test } from 'vitest';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { zoneOf } from '@flarik/core/vehicle/vehicle';
import { dimensionsOf, guidesOf, markOf } from './dimensions';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

const lookup = lookupOf(build);

const { vehicle } = lookup;

const shut = new Set<string>();

const lamp = (id: string) => {
  const found = build.placements.find((p) => p.id === id);
  if (found === undefined) throw new Error(`KS-12 has no ${id}`);
  return found;
};

describe('distances and guides', () => {
  test('to the neighbours, the edges, and up from the ground', () => {
    const all = dimensionsOf(lookup, build.placements, lamp('grille'), 'front', shut);
    const up = all.find((d) => d.id === 'height');
    expect(up?.text).toMatch(/^\d+ up$/);
    expect(up?.from[1]).toBe(0);
    const left = all.find((d) => d.id === 'left');
    expect(Number(left?.text)).toBe(Math.round(1000 * ((left?.to[0] ?? 0) - (left?.from[0] ?? 0))));
  });
  test('every dimension of the vehicle has its mark, with its figure and what it means', () => {
    for (const key of Object.keys(build.vehicle.dimensions)) {
      const mark = markOf(build.vehicle, vehicle, key);
      expect(mark?.text, key).toMatch(/^[A-Z][a-z ]+: [\d.,]+(°| mm)$/);
      expect(mark?.measured.length).toBeGreaterThan(5);
    }
    expect(markOf(build.vehicle, vehicle, 'wheelbaseM')?.text).toBe('Wheelbase: 2,900 mm');
    expect(markOf(build.vehicle, vehicle, 'deckHeightM')).toBeNull();
    expect(markOf(build.vehicle, vehicle, 'charm')).toBeNull();
  });
  test('a guide crosses its zone', () => {
    const [guide] = guidesOf(lookup, [{ axis: 'u', atM: 0.1, why: 'edge' }], 'grille', 'front', shut);
    const zone = zoneOf(vehicle, 'grille');
    expect(guide?.from[0]).toBeCloseTo(0.1, 9);
    expect((guide?.to[1] ?? 0) - (guide?.from[1] ?? 0)).toBeCloseTo(zone.heightM, 9);
  });
});
