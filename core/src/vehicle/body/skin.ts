import type { Solid } from '../../geometry/solid.ts';
import { add, dot, scale, type Vec3 } from '../../geometry/vec.ts';

/** A place on the skin lies so far off it, so that light does not begin below it, m. */
export const OFF_M = 0.004;

/**
 * What is drawn on a vehicle's picture may lie a little below the skin of its solids: moved out along its normal until
 * none covers it.
 */
export function onSkin(at: Vec3, n: Vec3, solids: readonly Solid[]): Vec3 {
  const around = solids.find(
    (s) => s.transmission === 0 && s.planes.every((plane) => dot(plane.n, at) < plane.d),
  );
  if (around === undefined) return at;
  // The way out of a convex solid along n is through the first face ahead.
  const ways = around.planes.flatMap(({ n: face, d }) => {
    const toward = dot(face, n);
    return toward > 1e-9 ? [(d - dot(face, at)) / toward] : [];
  });
  const rest = solids.filter((s) => s !== around);
  return onSkin(add(at, scale(n, Math.min(...ways) + OFF_M)), n, rest);
}
