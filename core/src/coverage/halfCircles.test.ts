import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { directionOf } from '../geometry/direction.ts';
import { transmissionAlong } from '../geometry/ray.ts';
import { box, prism } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { posedSolids, stopsOf } from '../vehicle/vehicle.ts';
import { LampFields } from './lampFields.ts';
import { HalfCircles } from './halfCircles.ts';
import { layOut } from './occlusion.ts';

const ELEVATIONS = Array.from({ length: 61 }, (_, i) => -90 + 3 * i);

describe('half circles', () => {
  const around = (origin: Vec3, solids: Parameters<typeof layOut>[0], bearing: number): Float64Array => {
    const share = new Float64Array(ELEVATIONS.length).fill(1);
    new HalfCircles([layOut(solids)], origin).dim(bearing, ELEVATIONS, share);
    return share;
  };

  test('a box hides the elevations between its edges, glass its share of them', () => {
    const wall = (transmission: number) => box('wall', [2, -1, 1], [3, 1, 3], { transmission });
    // Seen from 2 m before it, from a height of 1 m: from level to 45° up.
    const opaque = around([0, 0, 1], [wall(0)], 0);
    const glass = around([0, 0, 1], [wall(0.7)], 0);
    for (const [row, deg] of ELEVATIONS.entries()) {
      const hidden = deg > 0 && deg < 45;
      expect(opaque[row], `${deg}`).toBe(hidden ? 0 : 1);
      expect(glass[row], `${deg}`).toBe(hidden ? 0.7 : 1);
    }
    expect(around([0, 0, 1], [wall(0)], 90).every((share) => share === 1)).toBe(true);
    expect(around([2.5, 0, 2], [wall(0)], 200).every((share) => share === 0)).toBe(true);
  });

  test('what hangs straight above or stands below hides up or down, at every bearing', () => {
    const lid = box('lid', [-1, -1, 2], [1, 1, 2.5]);
    for (const bearing of [0, 45, 137, 270]) {
      const share = around([0, 0, 1], [lid], bearing);
      expect(share.at(-1)).toBe(0);
      expect(share[ELEVATIONS.indexOf(0)]).toBe(1);
      expect(share[0]).toBe(1);
    }
  });

  test('agree with a ray for every direction, whatever stands there', () => {
    const point = fc.tuple(
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: -3, max: 3, noNaN: true }),
    );
    const solid = fc
      .record({
        at: point,
        size: fc.double({ min: 0.1, max: 2, noNaN: true }),
        lean: fc.double({ min: -1, max: 1, noNaN: true }),
        corners: fc.integer({ min: 3, max: 7 }),
        transmission: fc.constantFrom(0, 0, 0.5),
      })
      .map(({ at: [x, y, z], size, lean, corners, transmission }) =>
        prism(
          'p',
          Array.from({ length: corners }, (_, i): Vec3 => {
            const turn = (2 * Math.PI * i) / corners;
            return [x + size * Math.cos(turn), y + size * Math.sin(turn), z];
          }),
          [lean, -lean / 2, size],
          { transmission },
        ),
      );
    fc.assert(
      fc.property(
        point,
        fc.array(solid, { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 0, max: 359 }),
        (origin, solids, bearing) => {
          const share = around(origin, solids, bearing);
          const apart = ELEVATIONS.map((deg, row) =>
            Math.abs((share[row] ?? NaN) - transmissionAlong(solids, origin, directionOf(bearing, deg))),
          );
          expect(Math.max(...apart)).toBeLessThan(1e-9);
        },
      ),
      { numRuns: 400, seed: 31 },
    );
  });

  test('on a whole vehicle, with doors open and lamps beside each other, give what rings give one by one', () => {
    for (const name of ['ks-12', 'shore-medic-7'] as const) {
      const build = demoBuild(name);
      const lookup = lookupOf(build);
      const poses = [[], ...stopsOf(lookup.vehicle).map(({ id }) => [id])];
      const elevations = [-30, -12, -2, 0, 4, 16, 60];
      fc.assert(
        fc.property(fc.constantFrom(...build.placements), fc.constantFrom(...poses), (p, open) => {
          const at = new LampFields(lookup, build.placements);
          at.prepare(p, open, elevations);
          const plain = new LampFields(lookup, build.placements);
          for (const deg of elevations)
            for (const [i, field] of at.of(p, open, deg).entries()) {
              const ring = plain.of(p, open, deg)[i];
              expect(field.heightM).toBe(ring?.heightM);
              const apart = Array.from(field.share, (share, b) => Math.abs(share - (ring?.share[b] ?? NaN)));
              expect(apart).toHaveLength(360);
              expect(Math.max(...apart)).toBeLessThan(1e-12);
            }
        }),
        { numRuns: 40, seed: 53 },
      );
      expect(posedSolids(lookup.vehicle, new Set()).length).toBeGreaterThan(40);
    }
  });
});
