import type { Plane } from './solid.ts';
import { add, dot, scale, sub, type Vec3 } from './vec.ts';

/** What lies no farther beyond a plane, or below it, than this lies in it, m. */
const CUT_M = 1e-6;

/** One side of the face that a cut leaves. */
interface Side {
  readonly from: Vec3;
  readonly to: Vec3;
}

/**
 * A convex body without what lies beyond a plane. A corner of several faces is the very same numbers in
 * each of them, before and after: what was closed stays closed, however flat the cut.
 *
 * @param faces - its faces as loops of corners, seen from outside counter-clockwise, m
 * @returns its faces then, the last the one that the cut leaves; none when nothing is left
 */
export function cutFaces(faces: readonly (readonly Vec3[])[], { n, d }: Plane): readonly (readonly Vec3[])[] {
  const beyond = (p: Vec3): number => dot(n, p) - d;
  const all = faces.flatMap((face) => face.map(beyond));
  if (all.every((by) => by <= CUT_M)) return faces;
  if (all.every((by) => by >= -CUT_M)) return [];
  // From the end that stays, whichever way a face walks its edge: both faces find the same point.
  const meets = (stays: Vec3, goes: Vec3): Vec3 =>
    add(stays, scale(sub(goes, stays), beyond(stays) / (beyond(stays) - beyond(goes))));
  const sides: Side[] = [];
  const left = faces.map((face): Vec3[] => {
    const crossings: Vec3[] = [];
    const kept = face.flatMap((p, i): Vec3[] => {
      const q = face[(i + 1) % face.length] ?? p;
      const [stays, nextStays] = [beyond(p) <= 0, beyond(q) <= 0];
      const corners = stays ? [p] : [];
      if (stays === nextStays) return corners;
      const point = stays ? meets(p, q) : meets(q, p);
      crossings.push(point);
      return [...corners, point];
    });
    // A face goes out and comes back in; the cut's face has the same side the other way round.
    const [first] = face;
    const startsInside = first !== undefined && beyond(first) <= 0;
    for (const [i, out] of crossings.entries()) {
      const back = crossings[(i + 1) % crossings.length];
      if ((i % 2 === 0) === startsInside && back !== undefined) sides.push({ from: back, to: out });
    }
    return kept;
  });
  return [...left, ...loopsOf(sides)].map(withoutRepeats).filter((face) => face.length >= 3);
}

const isSame = (p: Vec3, q: Vec3): boolean => p[0] === q[0] && p[1] === q[1] && p[2] === q[2];

/** Corners of a loop without those that are the one before over again. */
const withoutRepeats = (loop: readonly Vec3[]): Vec3[] =>
  loop.filter((p, i) => !isSame(p, loop.at(i - 1) ?? p));

/** Sides put end to end. */
function loopsOf(sides: readonly Side[]): Vec3[][] {
  const open = sides.filter(({ from, to }) => !isSame(from, to));
  const loops: Vec3[][] = [];
  for (let side = open.pop(); side !== undefined; side = open.pop()) {
    const start = side.from;
    const loop = [start];
    while (!isSame(side.to, start)) {
      const { to } = side;
      loop.push(to);
      const next = open.findIndex(({ from }) => isSame(from, to));
      const [found] = open.splice(next, next < 0 ? 0 : 1);
      if (found === undefined) break;
      side = found;
    }
    loops.push(loop);
  }
  return loops;
}
