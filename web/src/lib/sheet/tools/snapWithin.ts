import type { Paper } from '../paper.svelte';

/** A moved lamp is drawn to a place this near on the screen, px, and on the vehicle, m. */
const SNAP_PX = 7;
const MOST_SNAP_M = 0.06;

/** How near a place draws a lamp to it, m. */
export const snapWithinM = ({ px }: Paper): number => Math.min(SNAP_PX * px, MOST_SNAP_M);
