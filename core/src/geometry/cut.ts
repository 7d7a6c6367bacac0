import type { Plane } from './solid.ts';
import { add, cross, dot, scale, sub, unit, type Vec3 } from './vec.ts';

/** What lies no farther beyond a plane, or below it, than this lies in it, m. */
const CUT_M = 1e-6;
/** Corners nearer to each other than this are one, m. */
const SAME_M = 1e-7;

/**
 * A convex body without what lies beyond a plane.
 *
 * @param faces - its faces as loops of corners, seen from outside counter-clockwise, m
 * @returns its faces then, the last the one that the cut leaves; none when nothing is left
 */
export function cutFaces(faces: readonly (readonly Vec3[])[], { n, d }: Plane): readonly (readonly Vec3[])[] {
  const beyond = (p: Vec3): number => dot(n, p) - d;
  const all = faces.flatMap((face) => face.map(beyond));
  if (all.every((by) => by <= CUT_M)) return faces;
  if (all.every((by) => by >= -CUT_M)) return [];
  const edge: Vec3[] = [];
  const left = faces.flatMap((face): Vec3[][] => {
    const kept = face.flatMap((p, i): Vec3[] => {
      const q = face[(i + 1) % face.length] ?? p;
      const [from, to] = [beyond(p), beyond(q)];
      const corners = from <= 0 ? [p] : [];
      if (from <= 0 === to <= 0) return corners;
      const meets = add(p, scale(sub(q, p), from / (from - to)));
      edge.push(meets);
      return [...corners, meets];
    });
    return kept.length < 3 ? [] : [kept];
  });
  const cap = aroundMiddle(edge, n);
  return cap.length < 3 ? left : [...left, cap];
}

/** Corners of a convex figure in a plane, in order around its normal, each once. */
function aroundMiddle(corners: readonly Vec3[], n: Vec3): Vec3[] {
  const once = corners.filter(
    (p, i) => !corners.slice(0, i).some((q) => Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) < SAME_M),
  );
  const [first] = once;
  if (first === undefined || once.length < 3) return [];
  const middle = scale(
    once.reduce((sum, p) => add(sum, p)),
    1 / once.length,
  );
  const right = unit(sub(first, middle));
  const up = cross(n, right);
  const angle = (p: Vec3): number => Math.atan2(dot(sub(p, middle), up), dot(sub(p, middle), right));
  return once.toSorted((p, q) => angle(p) - angle(q));
}
