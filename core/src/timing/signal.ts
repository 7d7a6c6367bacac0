/** An amount over time, over and over, in straight pieces with edges in whole milliseconds: light in cd, current in A. */
export interface Signal {
  readonly cycleMs: number;
  /** Lengths of the pieces, adding up to the cycle, ms. */
  readonly durationsMs: readonly number[];
  /** The amount just after each piece begins. */
  readonly start: ArrayLike<number>;
  /** The amount just before each piece ends; the same as at its start where it stays. */
  readonly end: ArrayLike<number>;
}

/** Blondel and Rey's visual time constant, s. */
export const VISUAL_TIME_S = 0.2;

const at = (values: ArrayLike<number>, i: number): number => values[i] ?? 0;

/** The mean over the cycle. */
export function meanOf({ cycleMs, durationsMs, start, end }: Signal): number {
  return durationsMs.reduce((sum, ms, i) => sum + (ms * (at(start, i) + at(end, i))) / 2, 0) / cycleMs;
}

/**
 * Optical power: ∫ I dt over a minute.
 * @returns cd·s/min. 1000 cd for 100 ms, 75 times a minute, is 7500.
 */
export const opticalPower = (w: Signal): number => meanOf(w) * 60;

/** The highest amount. */
export function highestOf({ start, end }: Pick<Signal, 'start' | 'end'>): number {
  let most = 0;
  for (let i = 0; i < start.length; i++) most = Math.max(most, at(start, i), at(end, i));
  return most;
}

/** The lowest amount. */
export function lowestOf({ start, end }: Pick<Signal, 'start' | 'end'>): number {
  let least = Infinity;
  for (let i = 0; i < start.length; i++) least = Math.min(least, at(start, i), at(end, i));
  return least;
}

/**
 * Effective intensity of one flash (Blondel and Rey 1911): max over t1 < t2 of ∫ I dt / (a + t2 − t1), with
 * windows of at most one cycle.
 *
 * Found as the root of F(λ) = max ∫ (I − λ) dt − λ a (Dinkelbach 1967): for a given λ the best window begins and
 * ends on an edge or where I crosses λ, and is the greatest sum of neighbouring pieces; its own ratio is the next
 * λ. The ratios only rise, and for a light of steps they end after as many turns as there are windows at most.
 *
 * @param visualTimeS - a, s, > 0
 * @returns cd
 */
export function flashEffective(w: Signal, visualTimeS = VISUAL_TIME_S): number {
  let best = 0;
  for (;;) {
    const { energy, seconds } = bestWindow(w, best);
    const ratio = energy / (visualTimeS + seconds);
    if (!(ratio > best * (1 + 1e-13))) return best;
    best = ratio;
  }
}

/** The window of at most a cycle with the most light above λ: its whole energy, cd·s, and its length, s. */
function bestWindow(w: Signal, lambda: number): { energy: number; seconds: number } {
  const excess: number[] = [];
  const seconds: number[] = [];
  const push = (ms: number, from: number, to: number): void => {
    seconds.push(ms / 1000);
    excess.push((((from + to) / 2 - lambda) * ms) / 1000);
  };
  for (const [i, ms] of w.durationsMs.entries()) {
    const from = at(w.start, i);
    const to = at(w.end, i);
    if (from < lambda === to < lambda || from === to) push(ms, from, to);
    else {
      const part = (ms * (lambda - from)) / (to - from);
      push(part, from, lambda);
      push(ms - part, lambda, to);
    }
  }
  const [begin, count] = greatestRun(excess);
  let energy = 0;
  let length = 0;
  for (let k = 0; k < count; k++) {
    const i = (begin + k) % excess.length;
    energy += (excess[i] ?? 0) + lambda * (seconds[i] ?? 0);
    length += seconds[i] ?? 0;
  }
  return { energy, seconds: length };
}

/** The run of neighbours in a ring with the greatest sum, each taken at most once: where it begins, how many. */
function greatestRun(values: readonly number[]): [begin: number, count: number] {
  let sum = 0;
  let total = 0;
  let begin = 0;
  let best = -Infinity;
  let bestBegin = 0;
  let bestEnd = 0;
  let low = 0;
  let lowBegin = 0;
  let lowest = 0;
  let lowestBegin = 0;
  let lowestEnd = 0;
  for (const [i, v] of values.entries()) {
    total += v;
    if (sum <= 0) {
      sum = v;
      begin = i;
    } else sum += v;
    if (sum > best) {
      best = sum;
      bestBegin = begin;
      bestEnd = i + 1;
    }
    if (low >= 0) {
      low = v;
      lowBegin = i;
    } else low += v;
    if (low < lowest) {
      lowest = low;
      lowestBegin = lowBegin;
      lowestEnd = i + 1;
    }
  }
  const n = values.length;
  // Over the end of the cycle the best run is all but the worst one.
  return total - lowest > best
    ? [lowestEnd % n, n - (lowestEnd - lowestBegin)]
    : [bestBegin, bestEnd - bestBegin];
}

/**
 * Effective intensity of the repeating light, used for range: windows may span any number of cycles. A window
 * of n cycles and a part w has (nE + e) / (a + nT + w), which lies between e / (a + w) and the mean E / T; so
 * the supremum is the greater of the best single-cycle window and the mean, and steady light keeps its intensity.
 *
 * @returns cd
 */
export const effective = (w: Signal, visualTimeS = VISUAL_TIME_S): number =>
  Math.max(flashEffective(w, visualTimeS), meanOf(w));

/** A time without light, ms; `fromMs` within the cycle. */
export interface Gap {
  readonly fromMs: number;
  readonly ms: number;
}

/** A straight piece of a light. */
export interface SignalSegment {
  readonly fromMs: number;
  readonly toMs: number;
  readonly start: number;
  readonly end: number;
}

/** The times in which pieces that follow each other lie below a threshold; a ramp is cut where it crosses it. */
export function darkIn(pieces: Iterable<SignalSegment>, threshold: number): Gap[] {
  const gaps: { fromMs: number; ms: number }[] = [];
  for (const { fromMs, toMs, start, end } of pieces) {
    const [dark, darkAfter] = [start < threshold, end < threshold];
    if (!dark && !darkAfter) continue;
    const crossMs = fromMs + ((toMs - fromMs) * (threshold - start)) / (end - start);
    const begin = dark ? fromMs : crossMs;
    const ms = (darkAfter ? toMs : crossMs) - begin;
    const last = gaps.at(-1);
    if (ms <= 0) continue;
    if (last !== undefined && Math.abs(last.fromMs + last.ms - begin) < 1e-9) last.ms += ms;
    else gaps.push({ fromMs: begin, ms });
  }
  return gaps;
}

function* piecesOf({ durationsMs, start, end }: Signal): Generator<SignalSegment> {
  let fromMs = 0;
  for (const [i, ms] of durationsMs.entries()) {
    yield { fromMs, toMs: fromMs + ms, start: at(start, i), end: at(end, i) };
    fromMs += ms;
  }
}

/**
 * The times of a cycle in which the light stays below a threshold, in order, those over its end in one.
 * @returns none when it is never below; one of Infinity when always
 */
export function darkGaps(w: Signal, threshold: number): Gap[] {
  const gaps = darkIn(piecesOf(w), threshold);
  const [first] = gaps;
  const last = gaps.at(-1);
  if (first === undefined || last === undefined) return [];
  if (gaps.length === 1 && first.ms >= w.cycleMs) return [{ fromMs: 0, ms: Infinity }];
  if (gaps.length > 1 && first.fromMs === 0 && Math.abs(last.fromMs + last.ms - w.cycleMs) < 1e-9)
    return [...gaps.slice(1, -1), { fromMs: last.fromMs, ms: last.ms + first.ms }];
  return gaps;
}

/**
 * Longest time in which the light stays below a threshold, running on from the cycle's end into its beginning.
 * @returns ms; 0 when never below, Infinity when always below
 */
export const longestDarkMs = (w: Signal, threshold: number): number =>
  Math.max(0, ...darkGaps(w, threshold).map((gap) => gap.ms));

/** A signal with so much added all the time. */
export function raised(w: Signal, by: number): Signal {
  if (by === 0) return w;
  const up = (values: ArrayLike<number>): Float64Array => Float64Array.from(values, (v) => v + by);
  return { ...w, start: up(w.start), end: up(w.end) };
}

/** Reads a light, begun later by so much, between two times that no edge of its own parts: its values at both. */
export function readerOf(w: Signal, shiftMs = 0): (fromMs: number, toMs: number) => [number, number] {
  const starts: number[] = [];
  let t = 0;
  for (const ms of w.durationsMs) {
    starts.push(t);
    t += ms;
  }
  return (fromMs, toMs) => {
    const from = (((fromMs - shiftMs) % w.cycleMs) + w.cycleMs) % w.cycleMs;
    const i = starts.findLastIndex((s) => s <= from);
    const length = w.durationsMs[i] ?? 1;
    const start = w.start[i] ?? 0;
    const slope = ((w.end[i] ?? 0) - start) / length;
    const into = from - (starts[i] ?? 0);
    return [start + slope * into, start + slope * (into + toMs - fromMs)];
  };
}
