import type { Point2 } from '../../geometry/polygon.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { View } from '../types.ts';

/** A point of a view's picture: a to the viewer's right, b up; m. */

/** Where a view is seen from: the unit vector from the vehicle toward the viewer. */
export const toViewer: Readonly<Record<View, Vec3>> = {
  plan: [0, 0, 1],
  left: [0, 1, 0],
  right: [0, -1, 0],
  front: [1, 0, 0],
  rear: [-1, 0, 0],
};

/** Parallel projection of a point onto a view. The plan has the vehicle's front to the right, its left side up. */
export function project(view: View, [x, y, z]: Vec3): Point2 {
  switch (view) {
    case 'plan':
      return [x, y];
    case 'left':
      return [-x, z];
    case 'right':
      return [x, z];
    case 'front':
      return [y, z];
    case 'rear':
      return [-y, z];
  }
}

/** The point that a view shows at (a, b), this far toward the viewer from the middle of the vehicle, m. */
export function unproject(view: View, [a, b]: Point2, depthM: number): Vec3 {
  switch (view) {
    case 'plan':
      return [a, b, depthM];
    case 'left':
      return [-a, depthM, b];
    case 'right':
      return [a, -depthM, b];
    case 'front':
      return [depthM, a, b];
    case 'rear':
      return [-depthM, -a, b];
  }
}

/** Convex outline of projected points, counter-clockwise (Andrew's monotone chain, 1979). */
export function outlineOf(points: readonly Point2[]): Point2[] {
  const sorted = points.toSorted(([a1, b1], [a2, b2]) => a1 - a2 || b1 - b2);
  const half = (ordered: readonly Point2[]): Point2[] => {
    const chain: Point2[] = [];
    for (const p of ordered) {
      for (;;) {
        const [q, r] = [chain.at(-2), chain.at(-1)];
        if (q === undefined || r === undefined || turns(q, r, p) > 0) break;
        chain.pop();
      }
      chain.push(p);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.toReversed())];
}

const turns = (o: Point2, a: Point2, b: Point2): number =>
  (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
