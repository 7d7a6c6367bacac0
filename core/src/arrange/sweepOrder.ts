import type { Placement } from '../design/placement.ts';
import type { Lookup } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';

/** Modules nearer to each other than this across the vehicle take the same place in a sweep, m. */
const LEVEL_M = 0.02;

/**
 * The places of a lamp's modules in a sweep, from 1: from the left as seen from behind the vehicle, whichever way
 * the lamp is mounted, so that "to the right" is to the right for the traffic behind. A lamp that runs along the
 * vehicle is numbered as it is built.
 *
 * @returns by module, in the fixture's order
 */
export function sweepOrders(lookup: Lookup, p: Placement): number[] {
  const centres = placeModules(lookup, p, new Set()).map((m) => m.centre);
  const spread = (axis: 0 | 1): number =>
    Math.max(...centres.map((c) => c[axis])) - Math.min(...centres.map((c) => c[axis]));
  if (spread(1) < LEVEL_M || spread(1) < spread(0)) return centres.map((_, i) => i + 1);
  const lefts = centres
    .map((c) => c[1])
    .toSorted((a, b) => b - a)
    .filter((y, i, all) => i === 0 || (all[i - 1] ?? y) - y >= LEVEL_M);
  return centres.map((c) => Math.max(1, lefts.filter((y) => y > c[1] - 1e-9).length));
}

/** A lamp whose sweep was never renumbered by hand keeps running left to right after it was moved or turned. */
export function followSweep(lookup: Lookup, before: Placement, after: Placement): Placement {
  const usual = sweepOrders(lookup, before);
  if (!before.modules.every((m, i) => m.order === usual[i])) return after;
  const orders = sweepOrders(lookup, after);
  if (after.modules.every((m, i) => m.order === orders[i])) return after;
  return { ...after, modules: after.modules.map((m, i) => ({ ...m, order: orders[i] ?? m.order })) };
}
