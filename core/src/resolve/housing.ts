import type { Placement } from '../design/placement.ts';
import type { Convex } from '../geometry/overlap.ts';
import type { OpenParts } from '../vehicle/vehicle.ts';
import type { Lookup } from './lookup.ts';
import { housingCorners, placeFixture, type PlacedFixture } from './place.ts';

/** Housings may touch, and a tape measure is not finer than this, m. */
export const TOUCH_M = 0.001;

/** The housing of a placed fixture, as a box. */
export function housingOf(placed: PlacedFixture): Convex {
  const axes = [placed.frame.aim, placed.frame.right, placed.frame.up];
  return { corners: housingCorners(placed), normals: axes, edges: axes };
}

/** The housing of a lamp in a pose, as a box. */
export const housingIn = (lookup: Lookup, p: Placement, open: OpenParts): Convex =>
  housingOf(placeFixture(lookup, p, open));
