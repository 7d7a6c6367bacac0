import { clockSignal, meanLevel, timelinesOf } from '../timing/timeline.ts';
import { highestTogether, type Drifting, type OverAlignments } from '../timing/worst.ts';
import type { Drive } from './channels.ts';

/** The current that channels draw, A. */
export interface Current {
  readonly meanA: number;
  /** At the worst alignment of the clocks: each one's own highest, together. */
  readonly worstA: OverAlignments;
}

/** Mean and worst current of some channels. */
export const currentOf = (drives: readonly Drive[]): Current => ({
  meanA: drives.reduce((sum, d) => sum + d.currentA * meanLevel(d), 0),
  worstA: highestTogether(currentOverTime(drives)),
});

/** Current over time, clock by clock, A. */
export function currentOverTime(drives: readonly Drive[]): Drifting {
  const ampsOf = new Map(drives.map((d) => [d.channelId, d.currentA]));
  const timelines = timelinesOf(drives);
  return {
    background: drives.filter((d) => d.steady).reduce((sum, d) => sum + d.currentA * meanLevel(d), 0),
    clocks: timelines.flatMap((timeline) => clockSignal(timeline, ampsOf) ?? []),
    linked: timelines.some((t) => t.linked),
  };
}
