import { CYCLE_MS, type Cycle } from '../pattern.ts';
import type { Span } from '../span.ts';

/**
 * Cycles one after another, each so many times.
 * @throws {RangeError} they do not go together, or are too long
 */
export function sequenceCycle(parts: readonly { readonly cycle: Cycle; readonly times: number }[]): Cycle {
  const [first] = parts;
  if (first === undefined) throw new RangeError('a sequence needs at least one pattern');
  const { by } = first.cycle;
  if (parts.some((part) => part.cycle.by !== by))
    throw new RangeError('patterns by phase and patterns along a row cannot follow each other');
  const cycleMs = parts.reduce((sum, { cycle, times }) => sum + cycle.cycleMs * times, 0);
  if (cycleMs > CYCLE_MS.max)
    throw new RangeError(`runs for ${cycleMs} ms; at most ${CYCLE_MS.max} ms are allowed`);
  const count = Math.max(...parts.map(({ cycle }) => cycle.lines.length));
  const lines = Array.from({ length: count }, (_, line) => {
    let at = 0;
    return parts.flatMap(({ cycle, times }) =>
      Array.from({ length: times }, () => {
        const begin = at;
        at += cycle.cycleMs;
        const spans = cycle.lines[line % cycle.lines.length] ?? [];
        return spans.map((s): Span => ({ ...s, fromMs: begin + s.fromMs, toMs: begin + s.toMs }));
      }).flat(),
    );
  });
  return {
    by,
    cycleMs,
    lines,
    slowestPerMinute: Math.min(...parts.map(({ cycle }) => cycle.slowestPerMinute)),
    fastestPerMinute: Math.max(...parts.map(({ cycle }) => cycle.fastestPerMinute)),
    pulsesAFlash: Math.max(...parts.map(({ cycle }) => cycle.pulsesAFlash)),
  };
}
