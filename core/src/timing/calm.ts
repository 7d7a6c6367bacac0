import { commonCycleMs, type ScheduledPattern } from './timeline.ts';

/** The preview loops after this at most, ms. */
const LONGEST_LOOP_MS = 120_000;
/** Calm: no more than this many flashes begin in any second. */
const CALM_FLASHES_PER_S = 2;

/** The time after which the preview of these channels begins again, ms. */
export function loopMs(drives: readonly ScheduledPattern[]): number {
  const flashing = drives.filter((d) => !d.steady);
  return flashing.length === 0
    ? 1000
    : Math.min(LONGEST_LOOP_MS, commonCycleMs(flashing.map((d) => d.cycleMs)));
}

/**
 * How much slower than true speed a preview must run, at least 1, so that no more than two flashes of the whole
 * picture begin in any second. Every channel's every pulse counts, wherever it is on the screen.
 */
export function calmSlowdown(drives: readonly ScheduledPattern[]): number {
  const loop = loopMs(drives);
  const onsets = new Set<number>();
  for (const d of drives.filter((candidate) => !candidate.steady)) {
    for (let start = 0; start < loop; start += d.cycleMs)
      for (const s of d.spans) onsets.add(start + s.fromMs);
  }
  const times = [...onsets].toSorted((a, b) => a - b);
  if (times.length === 0) return 1;
  const apart = times.map((t, i) => {
    const later = i + CALM_FLASHES_PER_S;
    const wrapped = times[later % times.length] ?? t;
    return wrapped + loop * Math.floor(later / times.length) - t;
  });
  return Math.max(1, 1000 / Math.min(...apart));
}
