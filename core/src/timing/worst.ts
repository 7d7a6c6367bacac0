import { commonCycleMs, commonDivisor } from './timeline.ts';
import {
  effective,
  flashEffective,
  lowestOf,
  longestDarkMs,
  meanOf,
  highestOf,
  raised,
  readerOf,
  type Signal,
} from './signal.ts';

/** Light of several clocks that drift against each other, over a steady background. */
export interface Drifting {
  readonly background: number;
  readonly clocks: readonly Signal[];
  /** Some of these clocks are linked, and meet in some alignments only: what is worst over all is then a bound. */
  readonly linked?: boolean;
}

/** A figure over every alignment of the clocks; not exact where the search was given up, then it is a safe bound. */
export interface OverAlignments {
  readonly value: number;
  readonly exact: boolean;
}

/** The highest of all alignments: every clock's own highest falls together with the others' some time. */
export const highestTogether = ({ background, clocks, linked = false }: Drifting): OverAlignments => ({
  value: clocks.reduce((sum, w) => sum + highestOf(w), background),
  exact: !linked,
});

/** Placings a search may try before it gives up and answers with the bound. */
const MOST_PLACINGS = 8_000;
/** Pieces of light a search for the least effective intensity may look at. */
const MOST_PIECES = 40_000;
/** A gap is looked for up to this length, ms; longer ones count as without end. */
const LONGEST_GAP_MS = 10_000;
/** Cycles in common beyond this are not laid out, ms. */
const LONGEST_COMMON_MS = 20_000;

/** How hard to look for the longest gap. */
export interface DarkSearch {
  /** A bound no longer than this is answered as it is, ms. */
  readonly enoughMs?: number;
  readonly placings?: number;
  /** Clocks are not placed against each other: what they only reach together is bounded. */
  readonly boundOnly?: boolean;
}

/** A clock as steps: the edges of one cycle and its level in every millisecond. */
interface Steps {
  readonly cycleMs: number;
  readonly edges: readonly { readonly ms: number; readonly up: boolean }[];
  readonly levels: Float64Array;
}

function stepsOf({ cycleMs, durationsMs, start }: Signal): Steps {
  const levels = new Float64Array(cycleMs);
  let t = 0;
  for (const [i, ms] of durationsMs.entries()) {
    levels.fill(start[i] ?? 0, t, t + ms);
    t += ms;
  }
  const edges: { ms: number; up: boolean }[] = [];
  for (let ms = 0; ms < cycleMs; ms++) {
    const before = levels[(ms + cycleMs - 1) % cycleMs] ?? 0;
    const here = levels[ms] ?? 0;
    if (here !== before) edges.push({ ms, up: here > before });
  }
  return { cycleMs, edges, levels };
}

const hasRamp = ({ start, end }: Signal): boolean => Array.from(start).some((cd, i) => cd !== end[i]);

/** Whether a light is somewhere lit without reaching what is needed. */
function fallsShort({ start, end }: Signal, need: number): boolean {
  for (let i = 0; i < start.length; i++)
    for (const cd of [start[i] ?? 0, end[i] ?? 0]) if (cd > 0 && cd < need) return true;
  return false;
}

/**
 * The longest time below a threshold over every alignment of the clocks, exact.
 *
 * No gap is longer than the shortest of the clocks' own longest gaps. A clock whose every flash reaches the threshold
 * by itself can wait beside such a gap; those that reach it only together are placed by a search: in a longest gap
 * each of them can be moved later until one of its falls meets the beginning of the gap, or meets a rise of another,
 * or a rise of its meets another's fall. So only such placings are tried, clock by clock, and left as soon as what is
 * placed, with the least light that the others can send into it, ends the gap no later than the best one known.
 *
 * @returns ms; Infinity when some alignment never reaches the threshold
 */
export function worstDarkMs(light: Drifting, threshold: number, search: DarkSearch = {}): OverAlignments {
  const { value, exact } = worstDriftingMs(light, threshold, search);
  // Never dark is never dark in some alignments too.
  return { value, exact: exact && (light.linked !== true || value === 0) };
}

function worstDriftingMs(
  { background, clocks }: Drifting,
  threshold: number,
  { enoughMs = 0, placings = MOST_PLACINGS, boundOnly = false }: DarkSearch,
): OverAlignments {
  // What a clock never falls below is as good as steady.
  const lows = clocks.map(lowestOf);
  const need = threshold - lows.reduce((sum, cd) => sum + cd, background);
  if (need <= 0) return { value: 0, exact: true };
  const raisedOnly = clocks.map((w, i) => raised(w, -(lows[i] ?? 0))).filter((w) => highestOf(w) > 0);
  const bound = Math.min(Infinity, ...raisedOnly.map((w) => longestDarkMs(w, need)));
  if (bound <= enoughMs) return { value: bound, exact: false };
  const weak = raisedOnly.filter((w) => fallsShort(w, need));
  if (weak.length < 2 || weak.reduce((sum, w) => sum + highestOf(w), 0) < need)
    return { value: bound, exact: true };
  if (boundOnly || weak.some(hasRamp)) return { value: bound, exact: false };
  const reach = Math.min(bound, LONGEST_GAP_MS);
  const { found, settled } = new GapSearch(weak.map(stepsOf), need, reach, placings).run();
  if (!settled && found < reach) return { value: bound, exact: false };
  return { value: found >= reach ? bound : found, exact: true };
}

/** The search for the longest run from 0 in which clocks together stay below `need`, up to `reach`. */
class GapSearch {
  readonly #clocks: readonly Steps[];
  readonly #need: number;
  readonly #reach: number;
  /** For each clock and length of time, the least light it sends in any such time, cd·ms. */
  readonly #least: readonly Float64Array[];
  readonly #seen = new Set<string>();
  #best = 0;
  #left: number;

  constructor(clocks: readonly Steps[], need: number, reach: number, placings: number) {
    this.#left = placings;
    this.#clocks = clocks;
    this.#need = need;
    this.#reach = reach;
    this.#least = clocks.map((clock) => leastLight(clock, reach));
  }

  run(): { found: number; settled: boolean } {
    this.#climb();
    const settled =
      this.#best >= this.#reach ||
      this.#place(
        new Float64Array(this.#reach),
        [],
        [],
        this.#clocks.map((_, i) => i),
      );
    return { found: this.#best, settled };
  }

  /** A good alignment to begin with: clock by clock the phase that leaves the longest run, a few times round. */
  #climb(): void {
    const phases = this.#clocks.map(() => 0);
    const sum = new Float64Array(this.#reach);
    for (const [i, clock] of this.#clocks.entries()) addTo(sum, clock, phases[i] ?? 0, 1);
    for (let turn = 0; turn < 3; turn++)
      for (const [i, clock] of this.#clocks.entries()) {
        addTo(sum, clock, phases[i] ?? 0, -1);
        let best = -1;
        for (const { ms } of [...clock.edges, ...clock.edges.map((e) => ({ ms: e.ms + 1 }))]) {
          const phase = ms % clock.cycleMs;
          const run = runWith(sum, clock, phase, this.#need);
          if (run > best) {
            best = run;
            phases[i] = phase;
          }
        }
        addTo(sum, clock, phases[i] ?? 0, 1);
        this.#best = Math.max(this.#best, best === -1 ? 0 : runOf(sum, this.#need));
      }
  }

  /**
   * Places one more clock in every way that can still lead to a longer run.
   * @param sum - light of what is placed, by millisecond
   * @returns false when the search is given up
   */
  #place(
    sum: Float64Array,
    edges: readonly { readonly ms: number; readonly up: boolean }[],
    names: readonly string[],
    left: readonly number[],
  ): boolean {
    const run = this.#longestStill(sum, left);
    if (run <= this.#best) return true;
    if (left.length === 0) {
      this.#best = run;
      return true;
    }
    for (const index of left) {
      const clock = this.#clocks[index];
      if (clock === undefined) continue;
      const rest = left.filter((i) => i !== index);
      for (const phase of this.#phases(clock, edges, run)) {
        const placed = [...names, `${index}:${phase}`].toSorted();
        const key = placed.join();
        if (this.#seen.has(key)) continue;
        this.#seen.add(key);
        if (--this.#left < 0) return false;
        if (runWith(sum, clock, phase, this.#need) <= this.#best) continue;
        const next = sum.slice();
        addTo(next, clock, phase, 1);
        const mine = clock.edges.flatMap(({ ms, up }) => {
          const out: { ms: number; up: boolean }[] = [];
          const first = (((ms - phase) % clock.cycleMs) + clock.cycleMs) % clock.cycleMs;
          for (let at = first; at < this.#reach; at += clock.cycleMs) out.push({ ms: at, up });
          return out;
        });
        if (!this.#place(next, [...edges, ...mine], placed, rest)) return false;
        if (this.#best >= this.#reach) return true;
      }
    }
    return true;
  }

  /** Phases in which a clock touches the beginning or what is placed: the pattern time it has at 0. */
  #phases(
    clock: Steps,
    edges: readonly { readonly ms: number; readonly up: boolean }[],
    run: number,
  ): ReadonlySet<number> {
    const phases = new Set<number>();
    const meet = (ms: number): void => {
      phases.add(((ms % clock.cycleMs) + clock.cycleMs) % clock.cycleMs);
    };
    for (const mine of clock.edges) {
      if (!mine.up) meet(mine.ms);
      for (const theirs of edges) if (mine.up !== theirs.up && theirs.ms < run) meet(mine.ms - theirs.ms);
    }
    return phases;
  }

  /** How long the run can be at most, given the least light that the clocks left send into any time so long. */
  #longestStill(sum: Float64Array, left: readonly number[]): number {
    let spare = 0;
    for (let ms = 0; ms < this.#reach; ms++) {
      const here = sum[ms] ?? 0;
      if (here >= this.#need) return ms;
      spare += this.#need - here;
      let least = 0;
      for (const i of left) least += this.#least[i]?.[ms + 1] ?? 0;
      if (least >= spare) return ms;
    }
    return this.#reach;
  }
}

function addTo(sum: Float64Array, { levels, cycleMs }: Steps, phase: number, times: 1 | -1): void {
  for (let ms = 0, at = phase % cycleMs; ms < sum.length; ms++, at = at + 1 === cycleMs ? 0 : at + 1)
    sum[ms] = (sum[ms] ?? 0) + times * (levels[at] ?? 0);
}

/** How long a sum and one more clock stay below what is needed. */
function runWith(sum: Float64Array, { levels, cycleMs }: Steps, phase: number, need: number): number {
  for (let ms = 0, at = phase % cycleMs; ms < sum.length; ms++, at = at + 1 === cycleMs ? 0 : at + 1)
    if ((sum[ms] ?? 0) + (levels[at] ?? 0) >= need) return ms;
  return sum.length;
}

function runOf(sum: Float64Array, need: number): number {
  const first = sum.findIndex((cd) => cd >= need);
  return first === -1 ? sum.length : first;
}

/** For each length up to `reach`, the least light a clock sends in any time of that length, cd·ms. */
function leastLight({ levels, cycleMs, edges }: Steps, reach: number): Float64Array {
  // The least window begins or ends on an edge.
  const before = new Float64Array(cycleMs + 1);
  for (let ms = 0; ms < cycleMs; ms++) before[ms + 1] = (before[ms] ?? 0) + (levels[ms] ?? 0);
  const whole = before[cycleMs] ?? 0;
  const upTo = (ms: number): number => {
    const turns = Math.floor(ms / cycleMs);
    return turns * whole + (before[ms - turns * cycleMs] ?? 0);
  };
  const least = new Float64Array(reach + 1);
  for (let length = 1; length <= reach; length++) {
    let low = Infinity;
    for (const { ms } of edges) {
      low = Math.min(low, upTo(ms + length) - upTo(ms));
      const begin = (((ms - length) % cycleMs) + cycleMs) % cycleMs;
      low = Math.min(low, upTo(begin + length) - upTo(begin));
    }
    least[length] = low === Infinity ? 0 : low;
  }
  return least;
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
export function leastEffective(light: Drifting): OverAlignments {
  const { value, exact } = leastDrifting(light);
  return { value, exact: exact && light.linked !== true };
}

function leastDrifting({ background, clocks }: Drifting): OverAlignments {
  const over = clocks.map((w) => raised(w, background));
  const mean = clocks.reduce((sum, w) => sum + meanOf(w), background);
  const bound = Math.max(mean, ...over.map((w) => flashEffective(w)));
  const order = over.toSorted((a, b) => flashEffective(b) - flashEffective(a));
  const [first, ...others] = order;
  if (first === undefined || others.length === 0) return { value: bound, exact: true };
  if (commonCycleMs(order.map((w) => w.cycleMs)) > LONGEST_COMMON_MS) return { value: bound, exact: false };
  const enough = bound * (1 + 1e-9);
  let best = Infinity;
  let left = MOST_PIECES;
  const place = (sum: Signal, waiting: readonly Signal[]): boolean => {
    const [next, ...rest] = waiting;
    if (next === undefined) {
      best = Math.min(best, effective(sum));
      return true;
    }
    const shifts = commonDivisor(sum.cycleMs, next.cycleMs);
    for (let k = 0; k < shifts && best > enough; k++) {
      // From the middle outward: what answers half a cycle later is often the least.
      const half = Math.floor(shifts / 2);
      const by = (half + (k % 2 === 0 ? k / 2 : shifts - (k + 1) / 2)) % shifts;
      const both = together(sum, raised(next, -background), by);
      left -= both.durationsMs.length;
      if (left < 0) return false;
      if (effective(both) < best && !place(both, rest)) return false;
    }
    return true;
  };
  const done = place(first, others);
  if (best <= enough) return { value: bound, exact: true };
  return done ? { value: best, exact: true } : { value: bound, exact: false };
}

/** Two lights over their common cycle, the second begun later by so much. */
export function together(a: Signal, b: Signal, byMs: number): Signal {
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
  const first = readerOf(a, 0);
  const second = readerOf(b, byMs);
  const values = pieces.map(({ from, to }) => {
    const [s1, e1] = first(from, to);
    const [s2, e2] = second(from, to);
    return [s1 + s2, e1 + e2] as const;
  });
  return {
    cycleMs,
    durationsMs: pieces.map(({ from, to }) => to - from),
    start: values.map(([start]) => start),
    end: values.map(([, end]) => end),
  };
}
