import { entryM } from '../geometry/ray.ts';
import type { Solid } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';

/** Where a view ends, and what is left of it there. */
export interface ExitPath {
  /** Infinite where it goes out to the sky. */
  readonly endM: number;
  /** The opaque solid it ends on; null for the ground or the sky. */
  readonly on: Solid | null;
  /** What the glass before lets through, 0 to 1. */
  readonly share: number;
}

/** Where a view past solids and the ground ends. An eye that is within a solid sees through it. @param view - unit vector */
export function wayOut(solids: readonly Solid[], eye: Vec3, view: Vec3): ExitPath {
  let endM = view[2] < 0 ? eye[2] / -view[2] : Infinity;
  let on: Solid | null = null;
  for (const solid of solids) {
    const atM = solid.transmission === 0 ? entryM(solid, eye, view) : Infinity;
    if (atM > 0 && atM < endM) [endM, on] = [atM, solid];
  }
  let share = 1;
  for (const solid of solids)
    if (solid.transmission > 0 && entryM(solid, eye, view) < endM) share *= solid.transmission;
  return { endM, on, share };
}
