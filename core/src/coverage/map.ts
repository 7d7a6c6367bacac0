import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { HighestTogether } from '../resolve/highest.ts';
import { drivenIn } from '../state/driven.ts';
import { BEARINGS } from './field.ts';
import { fieldsOf } from './lampFields.ts';
import { litChannels, powerRing, ringOf, type LitChannel, type RingOptions } from './ring.ts';

/** What a map of all directions shows. */
export const MAP_QUANTITIES = ['power', 'effective', 'peak'] as const;
export type MapQuantity = (typeof MAP_QUANTITIES)[number];

/** Elevations of a map, degrees: from, to, and from one row to the next. */
export const MAP_FROM_DEG = -30;
export const MAP_TO_DEG = 60;
export const MAP_STEP_DEG = 2;

/** The light toward every direction: rows by elevation from below, columns by whole bearing. */
export interface DirectionMap {
  readonly quantity: MapQuantity;
  readonly elevationsDeg: readonly number[];
  /** cd·s/min, or cd. */
  readonly values: Float64Array;
}

/**
 * The light of a state toward every direction; between two lamps, and between two rows, it can be given up.
 * @param stepDeg - from one row to the next
 */
export function* directionMap(
  build: Build,
  state: State,
  options: Omit<RingOptions, 'elevationDeg'>,
  quantity: MapQuantity,
  stepDeg = MAP_STEP_DEG,
): Generator<number, DirectionMap> {
  const rows = Math.floor((MAP_TO_DEG - MAP_FROM_DEG) / stepDeg) + 1;
  const elevationsDeg = Array.from({ length: rows }, (_, i) => MAP_FROM_DEG + i * stepDeg);
  const values = new Float64Array(rows * BEARINGS);
  const fields = fieldsOf(build);
  const lit = new Set(drivenIn(build, state).map(({ placementId }) => placementId));
  const lamps = build.placements.filter(({ id }) => lit.has(id));
  const steps = lamps.length + rows;
  for (const [i, p] of lamps.entries()) {
    fields.prepare(p, state.open, elevationsDeg);
    yield (i + 1) / steps;
  }
  for (const [row, elevationDeg] of elevationsDeg.entries()) {
    const channels = litChannels(build, state, { ...options, elevationDeg });
    values.set(rowOf(channels, quantity), row * BEARINGS);
    yield (lamps.length + row + 1) / steps;
  }
  return { quantity, elevationsDeg, values };
}

function rowOf(lit: readonly LitChannel[], quantity: MapQuantity): Float64Array {
  switch (quantity) {
    case 'power':
      return powerRing(lit);
    case 'effective':
      return ringOf(lit).effectiveCd;
    case 'peak':
      return peakRing(lit);
  }
}

/** The most light at any instant by bearing, drifting clocks each at their highest. */
function peakRing(lit: readonly LitChannel[]): Float64Array {
  const together = new HighestTogether(lit.map(({ drive }) => drive));
  return Float64Array.from({ length: BEARINGS }, (_, b) =>
    together.of((at) => (lit[at]?.drive.peakCd ?? 0) * (lit[at]?.share[b] ?? 0)),
  );
}
