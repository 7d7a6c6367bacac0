import type { Solid } from './solid.ts';
import { dot, type Vec3 } from './vec.ts';

/**
 * Light is hidden below a solid's skin, not on it: a ray that slides along a face or touches an edge passes. A
 * micrometre is far above rounding (1e-15 of metres) and far below a panel.
 */
export const SKIN_M = 1e-6;

/**
 * Length of a ray below the skin of a convex solid, ahead of its origin, by clipping against the half-spaces
 * (Cyrus and Beck 1978; Kay and Kajiya 1986).
 *
 * @param direction - unit vector
 * @returns m; 0 when the ray misses
 */
export function chordM(solid: Solid, origin: Vec3, direction: Vec3): number {
  const { enter, leave } = clip(solid, origin, direction);
  return leave - enter;
}

/** How far along a ray it enters a convex solid, m; Infinity when it misses. */
export function entryM(solid: Solid, origin: Vec3, direction: Vec3): number {
  const { enter, leave } = clip(solid, origin, direction);
  return enter < leave ? enter : Infinity;
}

const MISSED = { enter: 0, leave: 0 };

function clip(solid: Solid, origin: Vec3, direction: Vec3): { enter: number; leave: number } {
  let enter = 0;
  let leave = Infinity;
  for (const { n, d } of solid.planes) {
    const gap = d - SKIN_M - dot(n, origin);
    const speed = dot(n, direction);
    if (speed > 0) leave = Math.min(leave, gap / speed);
    else if (speed < 0) enter = Math.max(enter, gap / speed);
    else if (gap < 0) return MISSED;
    if (enter >= leave) return MISSED;
  }
  return { enter, leave };
}

/** Share of the light from `origin` toward `direction` that the solids let pass, 0 to 1. */
export function transmissionAlong(solids: readonly Solid[], origin: Vec3, direction: Vec3): number {
  let share = 1;
  for (const s of solids) {
    if (s.transmission < 1 && chordM(s, origin, direction) > 0) share *= s.transmission;
    if (share === 0) return 0;
  }
  return share;
}
