import { describe, expect, test } from 'vitest';
import { contoursOf } from './contours';

const COLUMNS = 60;
const ROWS = 40;
/** A field by the middles of its cells. */
const field = (of: (x: number, y: number) => number): Float64Array =>
  Float64Array.from({ length: COLUMNS * ROWS }, (_, i) =>
    of((i % COLUMNS) + 0.5, Math.floor(i / COLUMNS) + 0.5),
  );
/** The points of a path; rows counted from the bottom again. */
const pointsOf = (path: string): { x: number; y: number }[] =>
  [...path.matchAll(/[ML]([\d.]+) ([\d.]+)/g)].map(([, x, y]) => ({ x: Number(x), y: ROWS - Number(y) }));

describe('lines of equal value', () => {
  test('around a cone they are circles at the exact level', () => {
    const cone = field((x, y) => 20 - Math.hypot(x - 30, y - 20));
    const [circle] = contoursOf(cone, COLUMNS, ROWS, [8]);
    const points = pointsOf(circle?.path ?? '');
    expect(points.length).toBeGreaterThan(40);
    for (const { x, y } of points) expect(Math.abs(Math.hypot(x - 30, y - 20) - 12)).toBeLessThan(0.05);
  });

  test('on a slope they run straight across, and not along the edge of the field', () => {
    const slope = field((x) => x);
    const [line] = contoursOf(slope, COLUMNS, ROWS, [12.25]);
    const path = line?.path ?? '';
    const drawn = path.split('M').filter((run) => run.includes('L'));
    expect(drawn).toHaveLength(1);
    // Beyond the middles of the outermost cells nothing is known: there it only goes on.
    const inside = pointsOf(`M${drawn[0] ?? ''}`).filter(({ y }) => y > 0 && y < ROWS);
    expect(inside).toHaveLength(ROWS);
    for (const { x } of inside) expect(x).toBeCloseTo(12.25, 2);
  });

  test('where the level is nowhere there is no line and no name', () => {
    expect(
      contoursOf(
        field(() => 1),
        COLUMNS,
        ROWS,
        [2],
      ),
    ).toEqual([{ level: 2, path: '', at: null }]);
  });

  test('names stand on their lines, clear of each other and of the edge', () => {
    const cone = field((x, y) => 20 - Math.hypot(x - 30, y - 20));
    const [inner, outer] = contoursOf(cone, COLUMNS, ROWS, [12, 6]);
    for (const [contour, radius] of [
      [inner, 8],
      [outer, 14],
    ] as const) {
      const { x = NaN, y = NaN } = contour?.at ?? {};
      expect(Math.hypot(x * COLUMNS - 30, (1 - y) * ROWS - 20)).toBeCloseTo(radius, 0);
    }
    expect(inner?.at).not.toEqual(outer?.at);
  });
});
