import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { convexPieces, isConvex, uncrossed, type Point2 } from '../geometry/polygon.ts';
import { dot } from '../geometry/vec.ts';
import { BODY_TYPES } from './bodies/bodyTypes.ts';
import { dimensionsFault } from './body/dimension.ts';
import { rangesOf } from './options/options.ts';
import { defaultSpec } from './spec.ts';
import { vehicleOf } from './vehicle.ts';

/** Rounding of corners and planes, m: three orders above what double precision leaves, three below a panel. */
const ROUNDING_M = 1e-6;

/** A value of each range; the ends come up often, since that is where shapes turn over. */
const within = ([low, high]: readonly [number, number, number]) =>
  fc.oneof(
    fc.constantFrom(low, high),
    fc.integer({ min: 0, max: 1000 }).map((k) => Math.round((low + ((high - low) * k) / 1000) * 1000) / 1000),
  );

/** Measures within their ranges, those of what is fitted among them. */
const measuresOf = (ranges: ReturnType<typeof rangesOf>) =>
  fc.record(Object.fromEntries(Object.entries(ranges).map(([key, range]) => [key, within(range)])));

describe('every solid is convex for every accepted measure', () => {
  test.each(BODY_TYPES.map((body) => [body.id, body] as const))('%s', (id, body) => {
    const fitted = fc
      .subarray([...body.options])
      .chain((options) => fc.tuple(fc.constant(options), measuresOf(rangesOf(body, options))));
    fc.assert(
      fc.property(fitted, ([options, dimensions]) => {
        if (dimensionsFault(body, dimensions) !== null) return;
        const vehicle = vehicleOf({ ...defaultSpec(id), dimensions, options });
        for (const solid of vehicle.solids) {
          const out = Math.max(
            ...solid.planes.flatMap(({ n, d }) => solid.vertices.map((v) => dot(n, v) - d)),
          );
          expect(out, `${solid.id} ${JSON.stringify(dimensions)}`).toBeLessThan(ROUNDING_M);
        }
      }),
      { seed: 11, numRuns: 60 },
    );
  });
});

describe('flat figures in convex pieces', () => {
  const area = (points: readonly Point2[]): number =>
    Math.abs(
      points.reduce((sum, [x, y], i) => {
        const [x1, y1] = points[(i + 1) % points.length] ?? [x, y];
        return sum + (x * y1 - x1 * y) / 2;
      }, 0),
    );
  /** A star-shaped figure: any radius at each of a few bearings, so that it is simple and mostly not convex. */
  const star = fc.array(fc.integer({ min: 20, max: 100 }), { minLength: 4, maxLength: 12 }).map((radii) =>
    radii.map((r, i): Point2 => {
      const a = (2 * Math.PI * i) / radii.length;
      return [r * Math.cos(a), r * Math.sin(a)];
    }),
  );
  test('the pieces are convex and fill the figure, whichever way round it runs', () => {
    fc.assert(
      fc.property(star, fc.boolean(), (points, turned) => {
        const pieces = convexPieces(turned ? points.toReversed() : points);
        expect(pieces.every(isConvex)).toBe(true);
        expect(pieces.reduce((sum, p) => sum + area(p), 0)).toBeCloseTo(area(points), 6);
        expect(pieces.length).toBeLessThanOrEqual(points.length - 2);
      }),
      { seed: 4, numRuns: 200 },
    );
  });
  test('an L is two pieces, a square one; crossed edges and a line are refused', () => {
    const square: Point2[] = [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ];
    expect(convexPieces(square)).toEqual([square]);
    expect(
      convexPieces([
        [0, 0],
        [2, 0],
        [2, 1],
        [1, 1],
        [1, 2],
        [0, 2],
      ]),
    ).toHaveLength(2);
    expect(() =>
      convexPieces([
        [0, 0],
        [1, 1],
        [1, 0],
        [0, 1],
      ]),
    ).toThrow(RangeError);
    expect(() =>
      convexPieces([
        [0, 0],
        [1, 0],
        [2, 0],
      ]),
    ).toThrow(RangeError);
  });
  test('a figure that winds round twice is not convex though it always turns one way', () => {
    const pentagram = Array.from({ length: 5 }, (_, i): Point2 => {
      const a = (4 * Math.PI * i) / 5;
      return [Math.cos(a), Math.sin(a)];
    });
    expect(isConvex(pentagram)).toBe(false);
  });
  test('sides that cross leave a triangle, on whichever end is the right way round; none where neither is', () => {
    expect(uncrossed([0, 1], [0, 1])).toHaveLength(4);
    expect(uncrossed([0, 1], [1, 0])).toEqual([
      [0, 0],
      [1, 0],
      [0.5, 0.5],
    ]);
    expect(uncrossed([1, 0], [0, 1])).toEqual([
      [0.5, 0.5],
      [1, 1],
      [0, 1],
    ]);
    expect(uncrossed([1, 0], [1, 0])).toEqual([]);
  });
});
