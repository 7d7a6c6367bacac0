import { contours } from 'd3-contour';

type Point = readonly [x: number, y: number];

/** A line along which a field of values has one level. */
export interface Contour {
  readonly level: number;
  /** In cells, the first row of values at the bottom; where the field ends there is no line. */
  readonly path: string;
  /** Where its name stands, as shares of the picture's width and height; null where there is no room. */
  readonly at: { readonly x: number; readonly y: number } | null;
}

/** A name keeps so far from the edge of the picture and from other names, as a share of its width and height. */
const ROOM = 0.05;

/** Smooth lines of equal value, interpolated between the middles of cells. @param values - row by row */
export function contoursOf(
  values: ArrayLike<number>,
  columns: number,
  rows: number,
  levels: readonly number[],
): Contour[] {
  const field = Array.from(values);
  const draw = contours().size([columns, rows]).smooth(true);
  const named: Point[] = [];
  return levels.map((level) => {
    const rings = draw.contour(field, level).coordinates.flat().map(pointsOf);
    const at = roomOn(rings, columns, rows, named);
    if (at !== null) named.push(at);
    return {
      level,
      path: rings.map((ring) => pathOf(ring, columns, rows)).join(''),
      at: at === null ? null : { x: at[0] / columns, y: 1 - at[1] / rows },
    };
  });
}

const pointsOf = (ring: readonly (readonly number[])[]): Point[] =>
  ring.map(([x = 0, y = 0]): Point => [x, y]);

/** Rings close along the edge of the field; those stretches are left out. */
function pathOf(ring: readonly Point[], columns: number, rows: number): string {
  const onEdge = ([x, y]: Point): boolean => x === 0 || x === columns || y === 0 || y === rows;
  return ring
    .map((point, i) => {
      const before = ring[i - 1];
      const goesOn = before !== undefined && !(onEdge(before) && onEdge(point));
      return `${goesOn ? 'L' : 'M'}${point[0].toFixed(2)} ${(rows - point[1]).toFixed(2)}`;
    })
    .join('');
}

/** The first point of some lines that is clear of the edge and of other names; null when none is. */
function roomOn(
  rings: readonly (readonly Point[])[],
  columns: number,
  rows: number,
  named: readonly Point[],
): Point | null {
  const isClear = ([x, y]: Point): boolean =>
    Math.min(x / columns, 1 - x / columns, y / rows, 1 - y / rows) > ROOM &&
    named.every(([nx, ny]) => Math.hypot((nx - x) / columns, (ny - y) / rows) > 2 * ROOM);
  const longest = rings.toSorted((a, b) => b.length - a.length);
  for (const ring of longest) {
    // From its highest point on, where eyes begin.
    const top = ring.reduce((best, point, i) => (point[1] > (ring[best]?.[1] ?? 0) ? i : best), 0);
    const found = [...ring.slice(top), ...ring.slice(0, top)].find(isClear);
    if (found !== undefined) return found;
  }
  return null;
}
