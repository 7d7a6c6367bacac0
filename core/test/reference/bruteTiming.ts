import { levelAtTime, type Span } from '../../src/timing/span.ts';
import type { Signal } from '../../src/timing/signal.ts';

/** A light millisecond by millisecond, each as its middle has it: slow, and simple enough to be believed. */
export function perMs({ cycleMs, durationsMs, start, end }: Signal): Float64Array {
  const out = new Float64Array(cycleMs);
  let t = 0;
  for (const [i, ms] of durationsMs.entries()) {
    const [from, to] = [start[i] ?? 0, end[i] ?? 0];
    for (let k = 0; k < ms; k++) out[t + k] = from + ((to - from) * (k + 0.5)) / ms;
    t += ms;
  }
  return out;
}

/** A line of a pattern millisecond by millisecond, each as its middle has it. */
export const linePerMs = (spans: readonly Span[], cycleMs: number): Float64Array =>
  Float64Array.from({ length: cycleMs }, (_, ms) => levelAtTime(spans, cycleMs, ms + 0.5));

/** The best window of at most a cycle that begins and ends on whole milliseconds (Blondel and Rey, a = 0.2 s). */
export function bruteEffective(ms: Float64Array): number {
  let best = 0;
  for (let from = 0; from < ms.length; from++) {
    let energy = 0;
    for (let n = 1; n <= ms.length; n++) {
      energy += (ms[(from + n - 1) % ms.length] ?? 0) / 1000;
      best = Math.max(best, energy / (0.2 + n / 1000));
    }
  }
  return best;
}

/** The longest run of milliseconds below a threshold, over the end of the cycle too. */
export function bruteDarkMs(ms: Float64Array, threshold: number): number {
  let longest = 0;
  let dark = 0;
  for (let i = 0; i < 2 * ms.length; i++) {
    dark = (ms[i % ms.length] ?? 0) < threshold ? dark + 1 : 0;
    longest = Math.max(longest, dark);
  }
  return longest >= 2 * ms.length ? Infinity : longest;
}

/** Every alignment of clocks in whole milliseconds, one after another: the first clock stands still. */
export function* alignments(cycles: readonly number[]): Generator<number[]> {
  const [, ...others] = cycles;
  const shifts = others.map(() => 0);
  for (;;) {
    yield [0, ...shifts];
    let i = 0;
    while (i < shifts.length) {
      shifts[i] = (shifts[i] ?? 0) + 1;
      if ((shifts[i] ?? 0) < (others[i] ?? 1)) break;
      shifts[i] = 0;
      i++;
    }
    if (i === shifts.length) return;
  }
}

/** The longest dark run over every alignment, looked for up to `reach`. */
export function bruteWorstDarkMs(
  lights: readonly Float64Array[],
  background: number,
  threshold: number,
  reach: number,
): number {
  let worst = 0;
  // Every clock moves here, for the run begins at 0.
  for (const phases of alignments([1, ...lights.map((l) => l.length)])) {
    let run = 0;
    for (; run < reach; run++) {
      const sum = lights.reduce(
        (cd, light, k) => cd + (light[(run + (phases[k + 1] ?? 0)) % light.length] ?? 0),
        background,
      );
      if (sum >= threshold) break;
    }
    worst = Math.max(worst, run);
  }
  return worst;
}
