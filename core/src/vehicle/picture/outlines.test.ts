import { describe, expect, test } from 'vitest';
import { box } from '../../geometry/solid.ts';
import { dot } from '../../geometry/vec.ts';
import { BODY_TYPES } from '../bodies/bodyTypes.ts';
import { defaultSpec } from '../spec.ts';
import type { ArtShape, Vehicle, View } from '../types.ts';
import { vehicleOf } from '../vehicle.ts';
import { cornersOf, Outlines } from './outlines.ts';
import { project } from './views.ts';

describe('the corners of a drawn path', () => {
  test('moves and lines as they stand, a curve in steps that end where it ends', () => {
    expect(cornersOf('M0,0L1,0L1,-1.5Z')).toEqual([
      [0, 0],
      [1, 0],
      [1, -1.5],
    ]);
    const round = cornersOf('M0,0Q1,0 1,1L0,1Z');
    expect(round).toHaveLength(7);
    expect(round.at(-2)).toEqual([1, 1]);
    // Half way: a quarter of the beginning, half of the control point, a quarter of the end.
    const [, , second, third] = round;
    expect(((second?.[0] ?? 0) + (third?.[0] ?? 0)) / 2).toBeCloseTo(0.75, 1);
    expect(cornersOf('M1e-3,2e-05L3,4')).toEqual([
      [0.001, 0.00002],
      [3, 4],
    ]);
  });
});

/** A vehicle of which nothing but some drawings matter. */
const drawn = (...art: [View, ArtShape['kind'], string][]): Vehicle => ({
  ...vehicleOf(defaultSpec('mid-suv')),
  art: art.map(([view, kind, path]) => ({ view, kind, path, partId: null })),
});
const cube = box('cube', [0, 0, 0], [1, 1, 1]);
const reach = (faces: readonly (readonly (readonly number[])[])[], axis: 0 | 1 | 2): [number, number] => {
  const all = faces.flat().map((p) => p[axis] ?? 0);
  return [Math.min(...all), Math.max(...all)];
};

describe('a cube as it is drawn', () => {
  const outline = 'M-1,0L0,0L0,1L-0.5,1L-1,0.5Z';
  test('is cut where the outline of a view cuts it, from the left as from the right', () => {
    // The left view looks from +y: x runs to the left, so its corner at -1 is the front.
    const faces = new Outlines(drawn(['left', 'body', outline])).rounded(cube);
    expect(faces.flat().every(([x, , z]) => x + z <= 1.5 + 1e-9)).toBe(true);
    expect(faces).toHaveLength(7);
    expect(reach(faces, 0)).toEqual([0, 1]);
    expect(reach(faces, 1)).toEqual([0, 1]);
  });
  test('stays whole where it is not drawn, where little of it is, and for what is no body', () => {
    const whole = new Outlines(drawn()).rounded(cube);
    expect(whole).toHaveLength(6);
    for (const [kind, path] of [
      ['body', 'M-1,0L-0.6,0L-0.6,1L-1,1Z'],
      ['tyre', outline],
      ['opening', outline],
      ['cut', outline],
    ] as const)
      expect(new Outlines(drawn(['left', kind, path])).rounded(cube)).toEqual(whole);
  });
  test('goes by the front view ahead of the middle, by the rear view behind it', () => {
    const narrow = 'M0,0L0.7,0L0.7,1L0,1Z';
    const both = new Outlines(drawn(['front', 'body', narrow]));
    expect(reach(both.rounded(cube), 1)[1]).toBeCloseTo(0.7, 9);
    expect(reach(both.rounded(box('behind', [-1, 0, 0], [-0.1, 1, 1])), 1)[1]).toBe(1);
  });
});

test.each(BODY_TYPES.map(({ id }) => id))(
  '%s: nothing grows, nothing vanishes, and something is rounded',
  (id) => {
    const vehicle = vehicleOf(defaultSpec(id));
    const outlines = new Outlines(vehicle);
    let cut = 0;
    for (const solid of vehicle.solids) {
      const faces = outlines.rounded(solid);
      if (faces.length !== solid.faces.length) cut++;
      expect(faces.length, solid.id).toBeGreaterThanOrEqual(4);
      const outside = faces.flat().filter((p) => solid.planes.some(({ n, d }) => dot(n, p) > d + 1e-6));
      expect(outside, solid.id).toEqual([]);
      for (const view of ['left', 'plan'] as const) {
        const wide = (points: readonly (readonly [number, number, number])[]): number => {
          const across = points.map((p) => project(view, p)[0]);
          return Math.max(...across) - Math.min(...across);
        };
        expect(wide(faces.flat()), solid.id).toBeGreaterThan(0.4 * wide(solid.vertices));
      }
    }
    expect(cut).toBeGreaterThan(0);
  },
);
