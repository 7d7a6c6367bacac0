import { cross, dot, length, scale, sub, unit, type Vec3 } from './vec.ts';
import type { Solid } from './solid.ts';

/** A convex body as the separating axes need it: its corners, and the directions of its faces and edges (unit). */
export interface Convex {
  readonly corners: readonly Vec3[];
  readonly normals: readonly Vec3[];
  readonly edges: readonly Vec3[];
}

/** Two edges count as parallel below this sine: their cross product gives no further direction to look along. */
const PARALLEL = 1e-9;

/**
 * How deep two convex bodies stand in each other, by separating axes (Gottschalk, Lin and Manocha 1996): the least
 * shift along any face normal or pair of edges that would part them.
 *
 * @returns m; 0 or less when they do not touch, and then minus the gap along the axis that shows it best
 */
export function overlapDepthM(a: Convex, b: Convex): number {
  let depth = Infinity;
  const look = (axis: Vec3): boolean => {
    const [lowA, highA] = reach(a.corners, axis);
    const [lowB, highB] = reach(b.corners, axis);
    depth = Math.min(depth, highA - lowB, highB - lowA);
    return depth <= 0;
  };
  // Most pairs are parted by a face; only bodies that touch come as far as the pairs of edges.
  for (const axis of [...a.normals, ...b.normals]) if (look(axis)) return depth;
  for (const e of a.edges)
    for (const f of b.edges) {
      const axis = cross(e, f);
      const size = length(axis);
      if (size > PARALLEL && look(scale(axis, 1 / size))) return depth;
    }
  return depth;
}

function reach(corners: readonly Vec3[], axis: Vec3): [low: number, high: number] {
  let low = Infinity;
  let high = -Infinity;
  for (const c of corners) {
    const along = dot(c, axis);
    if (along < low) low = along;
    if (along > high) high = along;
  }
  return [low, high];
}

/** A solid as a convex body. */
export function convexOf({ vertices, faces, planes }: Solid): Convex {
  const at = (i: number): Vec3 => vertices[i] ?? [0, 0, 0];
  const edges = faces.flatMap((face) =>
    face.map((i, k) => unit(sub(at(face[(k + 1) % face.length] ?? i), at(i)))),
  );
  return { corners: vertices, normals: distinct(planes.map((p) => p.n)), edges: distinct(edges) };
}

/** Directions without those that only repeat or reverse another. */
const distinct = (directions: readonly Vec3[]): Vec3[] =>
  directions.reduce<Vec3[]>(
    (kept, d) => (kept.some((k) => length(cross(k, d)) < PARALLEL) ? kept : [...kept, d]),
    [],
  );
