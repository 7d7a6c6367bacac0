import { cross, dot, length, scale, type Vec3 } from './vec.ts';

/** A box anywhere in space: its eight corners, and its three edge directions (unit). */
export interface OrientedBox {
  readonly corners: readonly Vec3[];
  readonly edges: readonly [Vec3, Vec3, Vec3];
}

/** Two edges count as parallel below this sine: their cross product gives no further direction to look along. */
const PARALLEL = 1e-9;

/**
 * How deep two boxes stand in each other, by separating axes (Gottschalk, Lin and Manocha 1996): the least shift
 * along any face normal or pair of edges that would part them.
 *
 * @returns m; 0 or less when they do not touch, and then minus the gap along the axis that shows it best
 */
export function overlapDepthM(a: OrientedBox, b: OrientedBox): number {
  const crossed = a.edges
    .flatMap((e) => b.edges.map((f) => cross(e, f)))
    .filter((axis) => length(axis) > PARALLEL);
  const axes = [...a.edges, ...b.edges, ...crossed.map((axis) => scale(axis, 1 / length(axis)))];
  return Math.min(
    ...axes.map((axis) => {
      const [lowA, highA] = reach(a.corners, axis);
      const [lowB, highB] = reach(b.corners, axis);
      return Math.min(highA, highB) - Math.max(lowA, lowB);
    }),
  );
}

function reach(corners: readonly Vec3[], axis: Vec3): [low: number, high: number] {
  const along = corners.map((c) => dot(c, axis));
  return [Math.min(...along), Math.max(...along)];
}
