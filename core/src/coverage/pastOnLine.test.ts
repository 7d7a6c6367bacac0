import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { box, prism } from '../geometry/solid.ts';
import { add, length, scale, sub, unit, type Vec3 } from '../geometry/vec.ts';
import { layOut, occluderAt } from './occlusion.ts';
import { PastLines } from './pastOnLine.ts';

const passed = (
  lamp: Vec3,
  solids: Parameters<typeof layOut>[0],
  from: Vec3,
  along: Vec3,
  ks: readonly number[],
  onward = false,
): number[] => {
  const past = new PastLines([layOut(solids)], lamp).on(from, along, onward);
  return ks.map((k) => {
    const to = sub(add(from, scale(along, k)), lamp);
    return past(k, unit(to), length(to));
  });
};

describe('what passes to the points of a line', () => {
  const wall = (transmission: number) => box('wall', [1, 1, 0], [2, 1.5, 3], { transmission });

  test('a wall throws its shadow on the road behind it, glass its share of one', () => {
    // A lamp 2 m up at the origin, a road 3 m to its left: the wall's corners show at x 2 (past 1, 1.5) and x 6 (past 2, 1).
    const ks = [1.9, 2.1, 4, 5.9, 6.1];
    expect(passed([0, 0, 2], [wall(0)], [0, 3, 0], [1, 0, 0], ks)).toEqual([1, 0, 0, 0, 1]);
    expect(passed([0, 0, 2], [wall(0.7)], [0, 3, 0], [1, 0, 0], ks)).toEqual([1, 0.7, 0.7, 0.7, 1]);
    expect(passed([0, 0, 2], [wall(0.7), wall(0.5)], [0, 3, 0], [1, 0, 0], [4])).toEqual([0.35]);
  });

  test('what lies beyond the line or behind the lamp hides nothing of it', () => {
    expect(passed([0, 0, 2], [wall(0)], [0, 0.9, 0], [1, 0, 0], [1, 1.5, 2])).toEqual([1, 1, 1]);
    expect(passed([0, 0, 2], [wall(0)], [0, -3, 0], [1, 0, 0], [-1, 0, 5])).toEqual([1, 1, 1]);
  });

  test('a lamp within a solid lights no point, one on the line all up to what stands there', () => {
    expect(passed([1.5, 1.2, 1], [wall(0)], [0, 3, 0], [1, 0, 0], [-50, 0, 50])).toEqual([0, 0, 0]);
    expect(passed([0, 1.2, 1], [wall(0)], [-4, 1.2, 1], [1, 0, 0], [1, 4.5, 5.5, 9])).toEqual([1, 1, 0, 0]);
  });

  test('agrees with a ray to every point, whatever stands there', () => {
    const size = fc.double({ min: -3, max: 3, noNaN: true });
    const point = fc.tuple(size, size, size);
    const solid = fc
      .record({
        at: point,
        tall: fc.double({ min: 0.1, max: 2, noNaN: true }),
        lean: fc.double({ min: -1, max: 1, noNaN: true }),
        corners: fc.integer({ min: 3, max: 7 }),
        transmission: fc.constantFrom(0, 0, 0.5),
      })
      .map(({ at, tall, lean, corners, transmission }) =>
        prism(
          'one',
          Array.from({ length: corners }, (_, i): Vec3 => {
            const turn = (2 * Math.PI * i) / corners;
            return add(at, [tall * Math.cos(turn), tall * Math.sin(turn), lean * Math.cos(turn)]);
          }),
          [0.1, 0.2, tall],
          { transmission },
        ),
      );
    let met = 0;
    fc.assert(
      fc.property(
        point,
        point,
        point.filter((along) => length(along) > 0.1),
        fc.array(solid, { minLength: 1, maxLength: 5 }),
        (lamp, from, along, solids) => {
          const ks = Array.from({ length: 41 }, (_, i) => (i - 20) * 0.377 + 0.0123);
          const shares = passed(lamp, solids, from, along, ks);
          const ray = occluderAt(layOut(solids), lamp);
          const ahead = [1e-9, ...ks.filter((k) => k > 0)];
          expect(passed(lamp, solids, from, along, ahead, true)).toEqual(
            passed(lamp, solids, from, along, ahead),
          );
          for (const [i, k] of ks.entries()) {
            const to = sub(add(from, scale(along, k)), lamp);
            const share = ray(unit(to), length(to));
            expect(shares[i]).toBeCloseTo(share, 9);
            if (share < 1) met += 1;
          }
        },
      ),
      { numRuns: 300, seed: 11 },
    );
    expect(met).toBeGreaterThan(1000);
  });
});
