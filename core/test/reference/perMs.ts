import { levelAt, type ScheduledPattern } from '../../src/timing/timeline.ts';

type Spanned = Pick<ScheduledPattern, 'spans' | 'cycleMs'>;
const known = new WeakMap<Spanned, Float64Array>();

/** The level of a channel at every millisecond of its cycle, asked for once each. */
export function levelsPerMs(of: Spanned): Float64Array {
  const levels = known.get(of) ?? Float64Array.from({ length: of.cycleMs }, (_, ms) => levelAt(of, ms));
  known.set(of, levels);
  return levels;
}
