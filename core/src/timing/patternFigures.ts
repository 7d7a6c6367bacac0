import { flashFigures, type FlashFigures } from './flash.ts';
import { spansFor, type Pattern, type Span } from './pattern.ts';
import { effectiveCd, type Waveform } from './waveform.ts';

/** More flashes than this in any second are counted as a danger of seizures (WCAG 2.2, 2.3.1). */
export const MOST_FLASHES_A_SECOND = 3;

/** A pattern's figures on a lamp of phase A, or of the first step. Exact; nothing is sampled. */
export interface PatternFigures extends FlashFigures {
  /** Mean level over the cycle, 0 to 1. */
  readonly meanLevel: number;
  /** Effective intensity (Blondel and Rey, a = 0.2 s) as a share of the peak. */
  readonly effectiveShare: number;
  /** The most flashes that begin in any one second, on one lamp. */
  readonly mostFlashesASecond: number;
  /** The same over a whole group: both phases, or every step. */
  readonly mostFlashesASecondOfGroup: number;
}

/** Works out the figures of a pattern. */
export function patternFigures(pattern: Pattern): PatternFigures {
  const { cycleMs } = pattern;
  const first = spansFor(pattern, 'A', 1);
  const all = pattern.kind === 'phases' ? [pattern.A, pattern.B] : pattern.steps;
  return {
    ...flashFigures(first, cycleMs),
    meanLevel: first.reduce((sum, s) => sum + s.level * (s.toMs - s.fromMs), 0) / cycleMs,
    effectiveShare: effectiveCd(waveformOf(first, cycleMs)),
    mostFlashesASecond: mostInASecond(risesOf(first, cycleMs), cycleMs),
    mostFlashesASecondOfGroup: mostInASecond(
      [...new Set(all.flatMap((spans) => risesOf(spans, cycleMs)))],
      cycleMs,
    ),
  };
}

/** The light of one candela under these spans. */
function waveformOf(spans: readonly Span[], cycleMs: number): Waveform {
  const edges = [...new Set([0, cycleMs, ...spans.flatMap((s) => [s.fromMs, s.toMs])])].toSorted(
    (a, b) => a - b,
  );
  const starts = edges.slice(0, -1);
  return {
    cycleMs,
    durationsMs: starts.map((from, i) => (edges[i + 1] ?? cycleMs) - from),
    intensitiesCd: starts.map((from) => spans.find((s) => s.fromMs <= from && from < s.toMs)?.level ?? 0),
  };
}

/** When the light goes up within the cycle: from dark, or from a lower level. */
function risesOf(spans: readonly Span[], cycleMs: number): number[] {
  const levelBefore = (ms: number): number =>
    spans.find((s) => (ms === 0 ? s.toMs === cycleMs : s.toMs === ms))?.level ?? 0;
  return spans.filter((s) => s.level > levelBefore(s.fromMs)).map((s) => s.fromMs);
}

const SECOND_MS = 1000;

/** The most rises that fall in any second; the busiest second begins with one. */
function mostInASecond(rises: readonly number[], cycleMs: number): number {
  const cycles = Math.ceil(SECOND_MS / cycleMs) + 1;
  const times = Array.from({ length: cycles }, (_, c) => rises.map((ms) => c * cycleMs + ms)).flat();
  return Math.max(0, ...rises.map((from) => times.filter((t) => t >= from && t < from + SECOND_MS).length));
}
