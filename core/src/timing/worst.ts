import { commonCycleMs } from './timeline.ts';
import { effectiveCd, flashEffectiveCd, longestDarkMs, meanCd, peakCdOf, type Waveform } from './waveform.ts';

/** Light of several clocks that drift against each other, over a steady background. */
export interface DriftingLight {
  readonly backgroundCd: number;
  readonly clocks: readonly Waveform[];
}

/** A figure over every alignment of the clocks; not exact where the search was given up, then it is a safe bound. */
export interface OverAlignments {
  readonly value: number;
  readonly exact: boolean;
}

/** The highest intensity of all alignments: every clock's own highest falls together with the others' some time, cd. */
export const highestTogetherCd = ({ backgroundCd, clocks }: DriftingLight): number =>
  clocks.reduce((sum, w) => sum + peakCdOf(w), backgroundCd);

/** Work a search may do before it gives up and answers with the bound. */
const MOST_PLACINGS = 20_000;
const MOST_EVALUATIONS = 3_000;
/** A gap is looked for up to this length, ms; longer ones count as without end. */
const LONGEST_GAP_MS = 10_000;
/** Cycles in common beyond this are not laid out, ms. */
const LONGEST_COMMON_MS = 20_000;

/** A clock as steps: the edges of one cycle and the level from each on. */
interface Steps {
  readonly cycleMs: number;
  readonly edges: readonly { readonly ms: number; readonly up: boolean }[];
  at(ms: number): number;
}

function stepsOf({ cycleMs, durationsMs, startCd }: Waveform): Steps {
  const starts: number[] = [];
  let t = 0;
  for (const ms of durationsMs) {
    starts.push(t);
    t += ms;
  }
  const cd = (i: number): number => startCd[(i + starts.length) % starts.length] ?? 0;
  const levels = new Float64Array(cycleMs);
  for (const [i, from] of starts.entries()) levels.fill(cd(i), from, from + (durationsMs[i] ?? 0));
  return {
    cycleMs,
    edges: starts
      .map((ms, i) => ({ ms, up: cd(i) > cd(i - 1), same: cd(i) === cd(i - 1) }))
      .filter(({ same }) => !same),
    at: (ms) => levels[((ms % cycleMs) + cycleMs) % cycleMs] ?? 0,
  };
}

const hasRamp = ({ startCd, endCd }: Waveform): boolean =>
  Array.from(startCd).some((cd, i) => cd !== endCd[i]);

/**
 * The longest time below a threshold over every alignment of the clocks, exact.
 *
 * No gap is longer than the shortest of the clocks' own longest gaps. A clock whose every flash reaches the threshold
 * by itself can wait beside such a gap; those that reach it only together are placed by a search: in a longest gap
 * each of them can be moved later until one of its falls meets the beginning of the gap, or meets a rise of another,
 * or a rise of its meets another's fall. So only such placings are tried, clock by clock, and left as soon as what is
 * placed ends the gap no later than the best one known.
 *
 * @returns ms; Infinity when some alignment never reaches the threshold
 */
export function worstDarkMs({ backgroundCd, clocks }: DriftingLight, thresholdCd: number): OverAlignments {
  const need = thresholdCd - backgroundCd;
  if (need <= 0) return { value: 0, exact: true };
  const bound = Math.min(Infinity, ...clocks.map((w) => longestDarkMs(w, need)));
  const weak = clocks.filter((w) =>
    [...Array.from(w.startCd), ...Array.from(w.endCd)].some((cd) => cd > 0 && cd < need),
  );
  if (weak.length < 2 || weak.reduce((sum, w) => sum + peakCdOf(w), 0) < need)
    return { value: bound, exact: true };
  if (weak.some(hasRamp)) return { value: bound, exact: false };
  const reach = Math.min(bound, LONGEST_GAP_MS);
  const found = longestTogether(weak.map(stepsOf), need, reach);
  if (found === null) return { value: bound, exact: false };
  return { value: found >= reach ? bound : found, exact: true };
}

/** The longest run from 0 in which the clocks together stay below `need`, looked for up to `reach`; null when given up. */
function longestTogether(clocks: readonly Steps[], need: number, reach: number): number | null {
  let best = 0;
  let placings = 0;
  const seen = new Set<string>();
  const placed: { readonly clock: Steps; readonly phase: number }[] = [];

  /** Edges of what is placed, by their time in the run. */
  const edgesPlaced = (): { ms: number; up: boolean }[] =>
    placed.flatMap(({ clock, phase }) => {
      const out: { ms: number; up: boolean }[] = [];
      for (const e of clock.edges)
        for (
          let ms = (((e.ms - phase) % clock.cycleMs) + clock.cycleMs) % clock.cycleMs;
          ms <= reach;
          ms += clock.cycleMs
        )
          out.push({ ms, up: e.up });
      return out;
    });
  const runLength = (edges: readonly { ms: number; up: boolean }[]): number => {
    const bright = (ms: number): boolean =>
      placed.reduce((sum, { clock, phase }) => sum + clock.at(phase + ms), 0) >= need;
    if (bright(0)) return 0;
    let first = reach;
    for (const { ms, up } of edges) if (up && ms < first && bright(ms)) first = ms;
    return first;
  };
  const place = (left: readonly number[]): boolean => {
    const edges = edgesPlaced();
    const run = placed.length === 0 ? reach : runLength(edges);
    if (run <= best) return true;
    if (left.length === 0) {
      best = run;
      return true;
    }
    for (const index of left) {
      const clock = clocks[index];
      if (clock === undefined) continue;
      const phases = new Set<number>();
      const meet = (ms: number): void => {
        phases.add(((ms % clock.cycleMs) + clock.cycleMs) % clock.cycleMs);
      };
      for (const mine of clock.edges) {
        if (!mine.up) meet(mine.ms);
        for (const theirs of edges) if (mine.up !== theirs.up && theirs.ms < run) meet(mine.ms - theirs.ms);
      }
      const rest = left.filter((i) => i !== index);
      for (const phase of phases) {
        const key = [...placed.map((p) => `${clocks.indexOf(p.clock)}:${p.phase}`), `${index}:${phase}`]
          .toSorted()
          .join();
        if (seen.has(key)) continue;
        seen.add(key);
        if (++placings > MOST_PLACINGS) return false;
        placed.push({ clock, phase });
        const done = place(rest);
        placed.pop();
        if (!done) return false;
        if (best >= reach) return true;
      }
    }
    return true;
  };
  return place(clocks.map((_, i) => i)) ? best : best >= reach ? best : null;
}

/**
 * The least effective intensity over the alignments of the clocks in whole milliseconds.
 *
 * It is never below the mean of all, nor below what one clock gives alone. An alignment that comes down to that ends
 * the search; otherwise clocks are placed one by one, and a placing is left when it gives no less than the best known,
 * since more light never gives less. Clocks of unequal cycles meet in every way a whole multiple of their common
 * divisor apart, so only shifts below it are tried.
 *
 * @returns cd
 */
export function leastEffectiveCd({ backgroundCd, clocks }: DriftingLight): OverAlignments {
  const over = clocks.map((w) => raised(w, backgroundCd));
  const mean = clocks.reduce((sum, w) => sum + meanCd(w), backgroundCd);
  const bound = Math.max(mean, ...over.map((w) => flashEffectiveCd(w)));
  const order = over.toSorted((a, b) => flashEffectiveCd(b) - flashEffectiveCd(a));
  const [first, ...others] = order;
  if (first === undefined || others.length === 0) return { value: bound, exact: true };
  if (commonCycleMs(order.map((w) => w.cycleMs)) > LONGEST_COMMON_MS) return { value: bound, exact: false };
  const enough = bound * (1 + 1e-9);
  let best = Infinity;
  let evaluations = 0;
  const place = (sum: Waveform, left: readonly Waveform[]): boolean => {
    const [next, ...rest] = left;
    if (next === undefined) {
      best = Math.min(best, effectiveCd(sum));
      return true;
    }
    const shifts = commonDivisor(sum.cycleMs, next.cycleMs);
    for (let k = 0; k < shifts && best > enough; k++) {
      if (++evaluations > MOST_EVALUATIONS) return false;
      // From the middle outward: what answers half a cycle later is often the least.
      const half = Math.floor(shifts / 2);
      const by = (half + (k % 2 === 0 ? k / 2 : shifts - (k + 1) / 2)) % shifts;
      const both = together(sum, raised(next, -backgroundCd), by);
      if (effectiveCd(both) < best && !place(both, rest)) return false;
    }
    return true;
  };
  const done = place(first, others);
  if (best <= enough) return { value: bound, exact: true };
  return done ? { value: best, exact: true } : { value: bound, exact: false };
}

const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

/** A light with so much steady light added. */
function raised(w: Waveform, cd: number): Waveform {
  if (cd === 0) return w;
  const up = (values: ArrayLike<number>): Float64Array => Float64Array.from(values, (v) => v + cd);
  return { ...w, startCd: up(w.startCd), endCd: up(w.endCd) };
}

/** Two lights over their common cycle, the second begun later by so much. */
export function together(a: Waveform, b: Waveform, byMs: number): Waveform {
  const cycleMs = commonCycleMs([a.cycleMs, b.cycleMs]);
  const cuts = new Set<number>([0, cycleMs]);
  for (const [w, shift] of [
    [a, 0],
    [b, byMs],
  ] as const) {
    let edge = shift;
    for (let n = 0; n < cycleMs / w.cycleMs; n++)
      for (const ms of w.durationsMs) {
        cuts.add(edge % cycleMs);
        edge += ms;
      }
  }
  const edges = [...cuts].toSorted((x, y) => x - y);
  const pieces = edges.slice(0, -1).map((from, i) => ({ from, to: edges[i + 1] ?? cycleMs }));
  const first = pieceReader(a, 0);
  const second = pieceReader(b, byMs);
  const values = pieces.map(({ from, to }) => {
    const [s1, e1] = first(from, to);
    const [s2, e2] = second(from, to);
    return [s1 + s2, e1 + e2] as const;
  });
  return {
    cycleMs,
    durationsMs: pieces.map(({ from, to }) => to - from),
    startCd: values.map(([start]) => start),
    endCd: values.map(([, end]) => end),
  };
}

/** Reads a light between two times that no edge of its own parts: its values at both. */
function pieceReader(w: Waveform, shiftMs: number): (fromMs: number, toMs: number) => [number, number] {
  const starts: number[] = [];
  let t = 0;
  for (const ms of w.durationsMs) {
    starts.push(t);
    t += ms;
  }
  return (fromMs, toMs) => {
    const from = (((fromMs - shiftMs) % w.cycleMs) + w.cycleMs) % w.cycleMs;
    let i = starts.findLastIndex((s) => s <= from);
    if (i < 0) i = 0;
    const length = w.durationsMs[i] ?? 1;
    const start = w.startCd[i] ?? 0;
    const slope = ((w.endCd[i] ?? 0) - start) / length;
    const into = from - (starts[i] ?? 0);
    return [start + slope * into, start + slope * (into + toMs - fromMs)];
  };
}
