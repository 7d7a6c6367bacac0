import type { Drive } from './channels.ts';
import { clockLight, meanLevel, timelinesOf } from '../timing/timeline.ts';
import { highestTogetherCd, type DriftingLight } from '../timing/worst.ts';

/** The current that channels draw, A. */
export interface Current {
  readonly meanA: number;
  /** At the worst alignment of the clocks: each one's own highest, together. */
  readonly worstA: number;
}

/** Mean and worst current of some channels; exact. */
export const currentOf = (drives: readonly Drive[]): Current => ({
  meanA: drives.reduce((sum, d) => sum + d.currentA * meanLevel(d), 0),
  worstA: highestTogetherCd(currentOverTime(drives)),
});

/** Current over time, clock by clock, in place of candelas. */
export function currentOverTime(drives: readonly Drive[]): DriftingLight {
  const ampsOf = new Map(drives.map((d) => [d.channelId, d.currentA]));
  return {
    backgroundCd: drives.filter((d) => d.steady).reduce((sum, d) => sum + d.currentA * meanLevel(d), 0),
    clocks: timelinesOf(drives).flatMap((timeline) => clockLight(timeline, ampsOf) ?? []),
  };
}
