/** A point of a flat figure. */
export type Point2 = readonly [number, number];

/** Corners nearer to a line than this lie on it, m². */
const FLAT_M2 = 1e-10;

/** Pieces that fill a figure have its area but for rounding. */
const FILLED = 1e-9;

/** Twice the area of a triangle, positive when its corners run counter-clockwise. */
const turn = (a: Point2, b: Point2, c: Point2): number =>
  (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);

const area2 = (points: readonly Point2[]): number =>
  points.reduce((sum, [x, y], i) => {
    const [x1, y1] = points[(i + 1) % points.length] ?? [x, y];
    return sum + x * y1 - x1 * y;
  }, 0);

/** Whether a figure turns one way at every corner, once round. */
export function isConvex(points: readonly Point2[]): boolean {
  const n = points.length;
  const at = (i: number): Point2 => points[i % n] ?? [0, 0];
  const turns = points.map((_, i) => turn(at(i), at(i + 1), at(i + 2)));
  if (!turns.every((t) => t >= -FLAT_M2) && !turns.every((t) => t <= FLAT_M2)) return false;
  // A figure that winds round more than once also turns one way; its edges then reverse more than twice along x.
  const steps = points.map((_, i) => Math.sign(at(i + 1)[0] - at(i)[0])).filter((s) => s !== 0);
  return steps.filter((s, i) => s !== steps[(i + 1) % steps.length]).length <= 2;
}

/**
 * A simple figure as convex pieces that fill it: ears are cut off (Meisters 1975), then joined again where the whole
 * stays convex (Hertel and Mehlhorn 1983). A convex figure is its own only piece.
 *
 * @throws {RangeError} its edges cross, or it has no area
 */
export function convexPieces(points: readonly Point2[]): Point2[][] {
  if (isConvex(points) && Math.abs(area2(points)) > FLAT_M2) return [[...points]];
  const left = area2(points) > 0 ? [...points] : points.toReversed();
  const pieces: Point2[][] = [];
  while (left.length > 3) {
    const ear = left.findIndex((_, i) => isEar(left, i));
    if (ear === -1) throw new RangeError('the edges of a figure cross');
    const n = left.length;
    const [a, b, c] = [left[(ear + n - 1) % n], left[ear], left[(ear + 1) % n]];
    if (a !== undefined && b !== undefined && c !== undefined && turn(a, b, c) > FLAT_M2)
      pieces.push([a, b, c]);
    left.splice(ear, 1);
  }
  if (area2(left) > FLAT_M2) pieces.push(left);
  const filled = pieces.reduce((sum, piece) => sum + area2(piece), 0);
  if (pieces.length === 0) throw new RangeError('a figure has no area');
  if (Math.abs(filled - Math.abs(area2(points))) > FILLED * filled)
    throw new RangeError('the edges of a figure cross');
  return joined(pieces);
}

/** Whether a point lies in a figure that turns one way at every corner, or on its edge. */
export function isWithin(convex: readonly Point2[], point: Point2): boolean {
  const turns = convex.map((from, i) => turn(from, convex[(i + 1) % convex.length] ?? from, point));
  return turns.every((t) => t >= -FLAT_M2) || turns.every((t) => t <= FLAT_M2);
}

function isEar(points: readonly Point2[], i: number): boolean {
  const n = points.length;
  const [a, b, c] = [points[(i + n - 1) % n], points[i], points[(i + 1) % n]];
  if (a === undefined || b === undefined || c === undefined) return false;
  if (turn(a, b, c) < 0) return false;
  return points.every(
    (p) => p === a || p === b || p === c || turn(a, b, p) < 0 || turn(b, c, p) < 0 || turn(c, a, p) < 0,
  );
}

const same = (a: Point2 | undefined, b: Point2 | undefined): boolean =>
  a !== undefined && a[0] === b?.[0] && a[1] === b[1];

function joined(pieces: readonly Point2[][]): Point2[][] {
  const out = [...pieces];
  for (let i = 0; i < out.length; i++)
    for (let k = i + 1; k < out.length; k++) {
      const [a, b] = [out[i], out[k]];
      const both = together(a ?? [], b ?? []);
      if (both === null || !isConvex(both)) continue;
      out[i] = both;
      out.splice(k, 1);
      k = i;
    }
  return out;
}

/** Two counter-clockwise pieces that share an edge as one; null when they share none. */
function together(a: readonly Point2[], b: readonly Point2[]): Point2[] | null {
  for (const [i, from] of a.entries()) {
    const to = a[(i + 1) % a.length];
    const k = b.findIndex((p, m) => same(p, to) && same(b[(m + 1) % b.length], from));
    if (k === -1) continue;
    const rest = Array.from({ length: b.length - 2 }, (_, m) => b[(k + 2 + m) % b.length] ?? from);
    return [...a.slice(0, i + 1), ...rest, ...a.slice(i + 1)];
  }
  return null;
}

/**
 * A quadrilateral from its feet to its heads with the part behind a crossing cut away: four corners, three where its
 * sides meet, none where both ends are the wrong way round.
 *
 * @param feet - along the lower edge, from the one side to the other
 * @param heads - along the upper edge, in the same sense
 * @returns corners as (along, up), up 0 at the feet and 1 at the heads
 */
export function uncrossed(
  feet: readonly [number, number],
  heads: readonly [number, number],
): readonly Point2[] {
  const low = feet[1] - feet[0];
  const high = heads[1] - heads[0];
  if (low <= 0 && high <= 0) return [];
  if (low > 0 && high > 0)
    return [
      [feet[0], 0],
      [feet[1], 0],
      [heads[1], 1],
      [heads[0], 1],
    ];
  const up = low / (low - high);
  const apex: Point2 = [feet[0] + (heads[0] - feet[0]) * up, up];
  return low > 0 ? [[feet[0], 0], [feet[1], 0], apex] : [apex, [heads[1], 1], [heads[0], 1]];
}
