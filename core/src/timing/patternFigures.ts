import { flashFigures, type FlashFigures } from './flash.ts';
import { spansFor, type Cycle } from './pattern.ts';
import { endLevelOf, levelAtTime, levelWithin, litMs, type Span } from './span.ts';
import { effective, type Signal } from './signal.ts';

/** More flashes than this in any second are counted as a danger of seizures (WCAG 2.2, 2.3.1). */
export const MOST_FLASHES_A_SECOND = 3;

/** How a pattern stands to the danger of seizures. */
export type SeizureClass = 'no flash' | 'within three flashes a second' | 'over three flashes a second';

/** A pattern's figures on a lamp of phase A, or of the first step. Exact; nothing is sampled. */
export interface PatternFigures extends FlashFigures {
  readonly slowestPerMinute: number;
  readonly fastestPerMinute: number;
  /** Mean level over the cycle, 0 to 1. */
  readonly meanLevel: number;
  /** Effective intensity (Blondel and Rey, a = 0.2 s) as a share of the peak. */
  readonly effectiveShare: number;
  /** The most flashes that begin in any one second, on one lamp. */
  readonly mostFlashesASecond: number;
  /** The same over a whole group: all phases, or every step. */
  readonly mostFlashesASecondOfGroup: number;
  readonly seizureClass: SeizureClass;
  /** Whether it keeps its sense on lamps that share no clock: nothing in it answers anything else. */
  readonly soundAlone: boolean;
}

/** Works out the figures of a pattern. */
export function patternFigures(cycle: Cycle): PatternFigures {
  const { cycleMs, lines, slowestPerMinute, fastestPerMinute } = cycle;
  const first = spansFor(cycle, 'A', 1);
  const flashes = mostInASecond([...new Set(lines.flatMap((spans) => risesOf(spans, cycleMs)))], cycleMs);
  return {
    ...flashFigures(first, cycleMs),
    slowestPerMinute,
    fastestPerMinute,
    meanLevel: litMs(first) / cycleMs,
    effectiveShare: effective(waveformOfLine(first, cycleMs)),
    mostFlashesASecond: mostInASecond(risesOf(first, cycleMs), cycleMs),
    mostFlashesASecondOfGroup: flashes,
    seizureClass:
      flashes === 0
        ? 'no flash'
        : flashes <= MOST_FLASHES_A_SECOND
          ? 'within three flashes a second'
          : 'over three flashes a second',
    soundAlone: lines.length === 1,
  };
}

/** The light of one candela under these spans. */
export function waveformOfLine(spans: readonly Span[], cycleMs: number): Signal {
  const edges = [...new Set([0, cycleMs, ...spans.flatMap((s) => [s.fromMs, s.toMs])])].toSorted(
    (a, b) => a - b,
  );
  const starts = edges.slice(0, -1);
  return {
    cycleMs,
    durationsMs: starts.map((from, i) => (edges[i + 1] ?? cycleMs) - from),
    start: starts.map((from) => levelAtTime(spans, cycleMs, from)),
    end: starts.map((from, i) => {
      const span = spans.find((s) => s.fromMs <= from && from < s.toMs);
      return span === undefined ? 0 : levelWithin(span, edges[i + 1] ?? cycleMs);
    }),
  };
}

/** When the light goes up within the cycle: it jumps above the level before, or a ramp begins to rise. */
export function risesOf(spans: readonly Span[], cycleMs: number): number[] {
  return spans
    .filter((s, i) => {
      const before = spans[(i + spans.length - 1) % spans.length];
      const touches = before !== undefined && before.toMs % cycleMs === s.fromMs;
      const levelBefore = touches ? endLevelOf(before) : 0;
      if (s.level > levelBefore) return true;
      const wasRising = touches && endLevelOf(before) > before.level;
      return endLevelOf(s) > s.level && !wasRising;
    })
    .map((s) => s.fromMs);
}

const SECOND_MS = 1000;

/** The most rises that fall in any second; the busiest second begins with one, and one of the first cycle does as well. */
export function mostInASecond(rises: readonly number[], cycleMs: number): number {
  const cycles = Math.ceil(SECOND_MS / cycleMs) + 1;
  const times = Array.from({ length: cycles }, (_, c) => rises.map((ms) => c * cycleMs + ms))
    .flat()
    .toSorted((a, b) => a - b);
  let most = 0;
  let end = 0;
  for (const [begin, from] of times.entries()) {
    while ((times[end] ?? Infinity) < from + SECOND_MS) end++;
    most = Math.max(most, end - begin);
  }
  return most;
}
