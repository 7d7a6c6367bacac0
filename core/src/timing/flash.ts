import type { Cycle } from './pattern.ts';
import { isSteady, type Span } from './span.ts';

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

/** The most pulses that any line shows in a cycle. */
export const mostPulses = (lines: Cycle['lines'], cycleMs: number): number =>
  Math.max(0, ...lines.map((spans) => flashFigures(spans, cycleMs).pulsesPerCycle));
