import { MAP_STEP_DEG, type DirectionMap } from '../coverage/map.ts';
import type { LampHeight } from '../coverage/ring.ts';
import { bearingsIn, sectorsWhere, type Sector } from '../coverage/sectors.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { floorsIn } from './floors.ts';

/** Rows of a map toward one bearing, both ends within them. */
export interface MapRun {
  readonly bearing: number;
  readonly fromRow: number;
  readonly toRow: number;
}

/** Bearings at which too little light goes where the packs look from, and how far above and below that it goes on. */
export interface MapGap extends Sector {
  readonly runs: readonly MapRun[];
}

/**
 * The gaps in a map of optical power: a rule that looks from an elevation is not met there.
 * @param map - of all lamps of that level and all colours, in that state; of other quantities the floors say nothing
 */
export function mapGaps(build: Build, state: State, level: LampHeight, map: DirectionMap): MapGap[] {
  if (map.quantity !== 'power') return [];
  const limit = floorsIn(build, state, level);
  const asked = map.elevationsDeg.map((deg) =>
    floorsIn(build, state, level, (looks) => Math.abs(looks - deg) <= MAP_STEP_DEG / 2),
  );
  const at = (row: number, b: number): number => map.values[row * limit.length + b] ?? 0;
  const fails = (row: number, b: number): boolean => at(row, b) < (asked[row]?.[b] ?? 0);
  const runs = Array.from(limit, (least, b) =>
    runsWhere(asked.length, (row) => at(row, b) < least)
      .filter(({ fromRow, toRow }) => asked.some((_, row) => row >= fromRow && row <= toRow && fails(row, b)))
      .map((run) => ({ bearing: b, ...run })),
  );
  return sectorsWhere((b) => (runs[b] ?? []).length > 0).map((sector) => ({
    ...sector,
    runs: bearingsIn(sector).flatMap((b) => runs[b] ?? []),
  }));
}

/** The runs of rows for which a test holds. */
function runsWhere(rows: number, test: (row: number) => boolean): Omit<MapRun, 'bearing'>[] {
  const found: { fromRow: number; toRow: number }[] = [];
  for (let row = 0; row < rows; row++) {
    if (!test(row)) continue;
    const last = found.at(-1);
    if (last?.toRow === row - 1) last.toRow = row;
    else found.push({ fromRow: row, toRow: row });
  }
  return found;
}
