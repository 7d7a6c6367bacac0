import type { Colour } from '../words/colour.ts';
import type { Ring } from './ring.ts';
import { sectorsWhere, type Sector } from './sectors.ts';

/** A colour is missed toward a bearing below this effective intensity, cd. */
export const MISSED_CD = 10;

/**
 * The bearings that see too little: below the packs' floor for all colours together, or, for one colour alone
 * (for which the floors say nothing), below what is noticed at all.
 */
export function gapsOf(ring: Ring, floor: ArrayLike<number>, colour: Colour | null): Sector[] {
  if (colour !== null) return sectorsWhere((b) => (ring.effectiveCd[b] ?? 0) < MISSED_CD);
  return sectorsWhere((b) => (ring.powerCdsPerMin[b] ?? 0) < (floor[b] ?? 0));
}

/** The eight sides of a vehicle, clockwise from straight ahead. */
export const SIDES = [
  'front',
  'front right',
  'right',
  'rear right',
  'rear',
  'rear left',
  'left',
  'front left',
] as const;

/** Where a sector's middle lies, in words. */
export function positionName({ fromDeg, toDeg }: Sector): string {
  const span = (toDeg - fromDeg + 360) % 360;
  if (span === 359) return 'all round';
  const middle = (fromDeg + span / 2) % 360;
  return SIDES[Math.round(middle / 45) % 8] ?? 'front';
}
