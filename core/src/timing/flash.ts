import type { Cycle } from './pattern.ts';
import { endLevelOf, isSteady, type Span } from './span.ts';

/** What a lamp's light is, as rates and times. Exact: sums of whole milliseconds, nothing sampled. */
export interface FlashFigures {
  readonly steady: boolean;
  readonly cyclesPerMinute: number;
  readonly pulsesPerCycle: number;
  /** Share of the cycle lit, 0 to 1. */
  readonly onShare: number;
  readonly longestDarkMs: number;
}

/** The figures of one line of a cycle. A line that is never lit is dark for ever: longestDarkMs is Infinity. */
export function flashFigures(spans: readonly Span[], cycleMs: Cycle['cycleMs']): FlashFigures {
  const on = spans.reduce((sum, s) => sum + s.toMs - s.fromMs, 0);
  const gaps = spans.map((s, i) => {
    const next = spans[i + 1];
    const nextFrom = next?.fromMs ?? (spans[0]?.fromMs ?? 0) + cycleMs;
    return nextFrom - s.toMs;
  });
  return {
    steady: isSteady(spans, cycleMs),
    cyclesPerMinute: 60_000 / cycleMs,
    pulsesPerCycle: pulseCount(gaps, on === cycleMs),
    onShare: on / cycleMs,
    longestDarkMs: spans.length === 0 ? Infinity : Math.max(...gaps),
  };
}

/** Spans that touch are one pulse. */
const pulseCount = (gaps: readonly number[], always: boolean): number =>
  always ? 0 : gaps.filter((gap) => gap > 0).length;

/** The most pulses that make up one flash of any line. */
export const mostPulses = (lines: Cycle['lines'], cycleMs: number): number =>
  Math.max(0, ...lines.map((spans) => pulsesPerFlash(spans, cycleMs)));

/** The most pulses in one flash of a line: those of one colour, shared out where the light repeats. */
function pulsesPerFlash(spans: readonly Span[], cycleMs: number): number {
  const slots = [...new Set(spans.map((s) => s.slot))];
  if (slots.length > 1) {
    const runs = runsOfColour(spans);
    return Math.max(...runs.map((run) => run.filter((s, i) => s.fromMs !== run[i - 1]?.toMs).length));
  }
  return Math.ceil(flashFigures(spans, cycleMs).pulsesPerCycle / repeats(spans, cycleMs));
}

/** Spans in order, parted where the colour changes; a run over the end of the cycle is one. */
function runsOfColour(spans: readonly Span[]): Span[][] {
  const runs: Span[][] = [];
  for (const s of spans) {
    const last = runs.at(-1);
    if (last?.[0]?.slot === s.slot && last !== undefined) last.push(s);
    else runs.push([s]);
  }
  const [first] = runs;
  const last = runs.at(-1);
  if (first === undefined || last === undefined || first === last || first[0]?.slot !== last[0]?.slot)
    return runs;
  return [[...last, ...first], ...runs.slice(1, -1)];
}

/**
 * How often a line flashes in a cycle: once for its pulses in a group, as often as its light repeats within the cycle,
 * and anew with each change of colour. 0 for a line that is dark or steady.
 */
export function flashesPerCycle(spans: readonly Span[], cycleMs: number): number {
  const [first] = spans;
  if (first === undefined || (isSteady(spans, cycleMs) && first.slot === undefined)) return 0;
  return Math.max(1, runsOfColour(spans).length, repeats(spans, cycleMs));
}

/** How many times over a line shows the same light in its cycle, whatever its colours. */
function repeats(spans: readonly Span[], cycleMs: number): number {
  const { length } = spans;
  for (let n = length; n > 1; n--) {
    if (length % n !== 0 || cycleMs % n !== 0) continue;
    const shift = cycleMs / n;
    const each = length / n;
    const same = spans.every((s, i) => {
      const twin = spans[(i + each) % length];
      const over = i + each >= length ? cycleMs : 0;
      return (
        twin !== undefined &&
        twin.fromMs + over === s.fromMs + shift &&
        twin.toMs + over === s.toMs + shift &&
        twin.level === s.level &&
        endLevelOf(twin) === endLevelOf(s)
      );
    });
    if (same) return n;
  }
  return 1;
}
