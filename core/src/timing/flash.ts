import { isSteady, type Span } from './pattern.ts';

/** A pattern's figures on one lamp. Exact: sums of whole milliseconds, nothing sampled. */
export interface FlashFigures {
  readonly steady: boolean;
  readonly cyclesPerMinute: number;
  readonly pulsesPerCycle: number;
  /** Share of the cycle lit, 0 to 1. */
  readonly onShare: number;
  readonly longestDarkMs: number;
}

/** A lamp that is never lit is dark for ever: longestDarkMs is Infinity. */
export function flashFigures(spans: readonly Span[], cycleMs: number): FlashFigures {
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
