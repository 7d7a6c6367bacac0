import { readBuild } from '../rules/document.ts';
import { describe, expect, test } from 'vitest';
import { addPartner } from './lamps.ts';
import type { Build } from '../design/schema.ts';
import { applyScheme, numbers, schemeParts, SCHEMES, type Scheme } from './schemes.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';

/** Four heads, one near each corner: front left, front right, rear left, rear right. */
const four = addPartner(
  addPartner(
    put(put(emptyBuild(), 'fl', { zone: 'grille', uM: 0.3 }), 'rl', { zone: 'rear-bumper', uM: -0.4 }),
    'fl',
    'fr',
  ),
  'rl',
  'rr',
);
const all = (build: Build): Set<string> => new Set(build.placements.map((p) => p.id));
const phases = (scheme: Scheme): Record<string, string | undefined> =>
  Object.fromEntries(applyScheme(four, all(four), scheme).placements.map((p) => [p.id, p.modules[0]?.phase]));

describe('a scheme shares out phases', () => {
  test.each<[Scheme, Record<string, string>]>([
    ['together', { fl: 'A', fr: 'A', rl: 'A', rr: 'A' }],
    ['halves', { fl: 'A', fr: 'B', rl: 'A', rr: 'B' }],
    ['x', { fl: 'A', fr: 'B', rl: 'B', rr: 'A' }],
    ['quarters', { fl: 'A', fr: 'B', rl: 'D', rr: 'C' }],
    ['ends', { fl: 'A', fr: 'A', rl: 'B', rr: 'B' }],
    ['corners', { fl: 'B', fr: 'B', rl: 'B', rr: 'B' }],
    ['corners-across', { fl: 'A', fr: 'B', rl: 'A', rr: 'B' }],
    ['inside-out', { fl: 'A', fr: 'A', rl: 'A', rr: 'A' }],
  ])('%s', (scheme, wanted) => expect(phases(scheme)).toEqual(wanted));

  test('upper and lower, side and end', () => {
    const more = put(put(four, 'bar', { zone: 'roof', fixture: 'roof-bar-1200' }), 'side', {
      zone: 'wing-left',
    });
    const levels = applyScheme(more, all(more), 'levels').placements;
    expect(levels.find((p) => p.id === 'bar')?.modules[0]?.phase).toBe('A');
    expect(levels.find((p) => p.id === 'fl')?.modules[0]?.phase).toBe('B');
    const corners = applyScheme(more, all(more), 'corners').placements;
    expect(corners.find((p) => p.id === 'side')?.modules[0]?.phase).toBe('A');
    // At the left corner the end flashes with A, so its neighbour on the side answers with B.
    const across = applyScheme(more, all(more), 'corners-across').placements;
    expect(across.find((p) => p.id === 'side')?.modules[0]?.phase).toBe('B');
    expect(across.find((p) => p.id === 'fl')?.modules[0]?.phase).toBe('A');
  });

  test('a march numbers all modules clockwise from straight ahead', () => {
    const order = new Map(schemeParts(four, all(four), 'march').map((p) => [p.placementId, p.order]));
    expect(['fr', 'rr', 'rl', 'fl'].map((id) => order.get(id))).toEqual([1, 2, 3, 4]);
  });

  test('a row is numbered from left to right', () => {
    const order = new Map(schemeParts(four, all(four), 'row').map((p) => [p.placementId, p.order]));
    expect(['rl', 'fl', 'fr', 'rr'].map((id) => order.get(id))).toEqual([1, 2, 3, 4]);
  });

  test('mirrored lamps are alike or opposite, whatever the scheme, on a whole patrol car', () => {
    const car = demoBuild('ks-13');
    for (const scheme of SCHEMES.filter((s) => !numbers(s))) {
      const parts = schemeParts(car, all(car), scheme);
      const opposite = ['halves', 'x', 'quarters', 'checkers', 'corners-across'].includes(scheme);
      for (const part of parts) {
        const twin = parts.find(
          (q) =>
            Math.abs(q.at[0] - part.at[0]) < 1e-6 &&
            Math.abs(q.at[1] + part.at[1]) < 1e-6 &&
            Math.abs(q.at[2] - part.at[2]) < 1e-6 &&
            Math.abs(q.aim[1] + part.aim[1]) < 1e-6,
        );
        if (twin === undefined || Math.abs(part.at[1]) < 0.03) continue;
        expect(twin.phase !== part.phase, `${scheme} ${part.placementId}/${part.moduleId}`).toBe(opposite);
      }
    }
  });

  test('only the lamps named change, and the build reads back', () => {
    const laid = applyScheme(four, new Set(['fr']), 'together');
    expect(laid.placements.filter((p, i) => p !== four.placements[i]).map((p) => p.id)).toEqual(['fr']);
    for (const scheme of SCHEMES) {
      const whole = applyScheme(demoBuild('tunnel-pumper-3'), all(demoBuild('tunnel-pumper-3')), scheme);
      expect(readBuild(whole)).toEqual(whole);
    }
  });
});
