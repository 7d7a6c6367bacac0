import type { Pattern, Span } from './pattern.ts';

const on = (fromMs: number, toMs: number): Span => ({ fromMs, toMs, level: 1 });

/** Like pulses one after another, from `startMs`. */
const pulses = (count: number, onMs: number, offMs: number, startMs: number): Span[] =>
  Array.from({ length: count }, (_, i) => {
    const from = startMs + i * (onMs + offMs);
    return on(from, from + onMs);
  });

/** A pattern whose phase B answers in the other half of the cycle. */
const halves = (id: string, name: string, cycleMs: number, at: (startMs: number) => Span[]): Pattern => ({
  kind: 'phases',
  id,
  name,
  cycleMs,
  A: at(0),
  B: at(cycleMs / 2),
});

const SWEEP_STEPS = 8;
const filling = Array.from({ length: SWEEP_STEPS }, (_, i) => [on(i * 80, 800)]);

export const PATTERNS: readonly Pattern[] = [
  { kind: 'phases', id: 'steady', name: 'Steady', cycleMs: 1000, A: [on(0, 1000)], B: [on(0, 1000)] },
  halves('single', 'Single flash', 800, (start) => pulses(1, 220, 0, start)),
  halves('double', 'Double flash', 800, (start) => pulses(2, 110, 50, start)),
  halves('quad', 'Quad flash', 800, (start) => pulses(4, 55, 30, start)),
  halves('slow-alternate', 'Slow alternate', 1250, (start) => pulses(1, 600, 0, start)),
  { kind: 'steps', id: 'sweep', name: 'Sweep, first to last', cycleMs: 1000, steps: filling },
  {
    kind: 'steps',
    id: 'sweep-back',
    name: 'Sweep, last to first',
    cycleMs: 1000,
    steps: filling.toReversed(),
  },
];

export const findPattern = (id: string): Pattern | undefined => PATTERNS.find((p) => p.id === id);

/**
 * The library pattern of that id.
 * @throws {RangeError} the library has none
 */
export function patternOf(id: string): Pattern {
  const pattern = findPattern(id);
  if (pattern === undefined) throw new RangeError(`no pattern '${id}' in the library`);
  return pattern;
}
