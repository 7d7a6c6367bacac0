import type { Drive } from '@flarik/core/resolve/channels';
import { isRamp } from '@flarik/core/timing/span';
import { loopMs } from '@flarik/core/timing/calm';

/** A picture of a looping film: the pattern time it shows, and how long it stands. */
export interface Frame {
  readonly timeMs: number;
  readonly showMs: number;
}

/** No film has more pictures than this, or runs longer than this in pattern time. */
export const MOST_FRAMES = 160;
export const LONGEST_FILM_MS = 4000;
/** A ramp is shown in pictures this far apart, ms of pattern time. */
const RAMP_STEP_MS = 40;
/** A picture of the film format stands for whole hundredths of a second, two at least. */
const TICK_MS = 10;

/**
 * The pictures of one loop, one for each time anything changes: nothing between them is lost. A loop that is too long
 * is cut after `LONGEST_FILM_MS`.
 *
 * @param slowdown - how much slower than true speed it runs
 */
export function framesOf(drives: readonly Drive[], slowdown: number): Frame[] {
  const end = Math.min(loopMs(drives), LONGEST_FILM_MS);
  const times = new Set<number>([0]);
  for (const d of drives) {
    if (d.steady) continue;
    for (let start = 0; start < end; start += d.cycleMs)
      for (const s of d.spans) {
        times.add(start + s.fromMs).add(start + s.toMs);
        if (isRamp(s)) for (let t = s.fromMs; t < s.toMs; t += RAMP_STEP_MS) times.add(start + t);
      }
  }
  const edges = [...times].filter((t) => t < end).toSorted((a, b) => a - b);
  const kept = edges.slice(0, MOST_FRAMES);
  const stop = edges[MOST_FRAMES] ?? end;
  return kept.map((timeMs, i) => {
    const real = ((kept[i + 1] ?? stop) - timeMs) * slowdown;
    return { timeMs, showMs: Math.max(2 * TICK_MS, Math.round(real / TICK_MS) * TICK_MS) };
  });
}
