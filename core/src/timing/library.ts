import type { Pattern, Span } from './pattern.ts';

const on = (fromMs: number, toMs: number, level = 1): Span => ({ fromMs, toMs, level });

/** Like pulses one after another, from `startMs`. */
const pulses = (count: number, onMs: number, offMs: number, startMs: number): Span[] =>
  Array.from({ length: count }, (_, i) => {
    const from = startMs + i * (onMs + offMs);
    return on(from, from + onMs);
  });

/** Pulses of these lengths with these gaps between them, from `startMs`. */
function uneven(startMs: number, ...onOff: readonly number[]): Span[] {
  const spans: Span[] = [];
  let at = startMs;
  for (const [i, ms] of onOff.entries()) {
    if (i % 2 === 0) spans.push(on(at, at + ms));
    at += ms;
  }
  return spans;
}

/** A pattern whose phase B answers in the other half of the cycle. */
const halves = (id: string, name: string, cycleMs: number, at: (startMs: number) => Span[]): Pattern => ({
  kind: 'phases',
  id,
  name,
  cycleMs,
  A: at(0),
  B: at(cycleMs / 2),
});

/** A pattern that both phases show at once. */
const together = (id: string, name: string, cycleMs: number, spans: Span[]): Pattern => ({
  kind: 'phases',
  id,
  name,
  cycleMs,
  A: spans,
  B: spans,
});

/** The two phases take turns without a dark moment between them. */
const turns = (id: string, name: string, cycleMs: number): Pattern =>
  halves(id, name, cycleMs, (start) => [on(start, start + cycleMs / 2)]);

/** A burn at a low level with a flash on top of it, in phase B in the other half of the cycle. */
const burnWith = (id: string, name: string, cycleMs: number, flashMs: number, low: number): Pattern => ({
  kind: 'phases',
  id,
  name,
  cycleMs,
  A: [on(0, flashMs), on(flashMs, cycleMs, low)],
  B: [
    on(0, cycleMs / 2, low),
    on(cycleMs / 2, cycleMs / 2 + flashMs),
    on(cycleMs / 2 + flashMs, cycleMs, low),
  ],
});

const STEPS = 8;
/** Steps by their place from 0 in a row of eight. */
const steps = (id: string, name: string, cycleMs: number, at: (place: number) => Span[]): Pattern => ({
  kind: 'steps',
  id,
  name,
  cycleMs,
  steps: Array.from({ length: STEPS }, (_, place) => at(place)),
});

/** How far a place is from the middle of the row: 0 for the two in the middle, 3 for the ends. */
const fromMiddle = (place: number): number => (place < STEPS / 2 ? STEPS / 2 - 1 - place : place - STEPS / 2);

/** Fills one after the other and holds to the end of the lit part. */
const filling = (stepMs: number, litMs: number, turn: (place: number) => number) => (place: number) => [
  on(turn(place) * stepMs, litMs),
];
/** Lit alone, one after the other. */
const running = (stepMs: number, turn: (place: number) => number) => (place: number) => [
  on(turn(place) * stepMs, (turn(place) + 1) * stepMs),
];
const forth = (place: number): number => place;
const back = (place: number): number => STEPS - 1 - place;

/** The families of the library, in the order a list shows them. */
export const PATTERN_FAMILIES = [
  'steady',
  'one flash',
  'flash groups',
  'uneven',
  'taking turns',
  'together',
  'over a burn',
  'along a row',
] as const;
export type PatternFamily = (typeof PATTERN_FAMILIES)[number];

const FAMILIES: Readonly<Record<PatternFamily, readonly Pattern[]>> = {
  steady: [together('steady', 'Steady', 1000, [on(0, 1000)])],
  'one flash': [
    halves('single', 'Single flash', 800, (start) => pulses(1, 220, 0, start)),
    halves('single-slow', 'Single flash, slow', 1000, (start) => pulses(1, 300, 0, start)),
    halves('single-quick', 'Single flash, quick', 600, (start) => pulses(1, 160, 0, start)),
    halves('single-short', 'Single flash, short', 800, (start) => pulses(1, 90, 0, start)),
    halves('slow-alternate', 'Slow alternate', 1250, (start) => pulses(1, 600, 0, start)),
    halves('night-quarter', 'Single flash, for the night', 2000, (start) => pulses(1, 400, 0, start)),
  ],
  'flash groups': [
    halves('double', 'Double flash', 800, (start) => pulses(2, 110, 50, start)),
    halves('double-slow', 'Double flash, slow', 1000, (start) => pulses(2, 140, 70, start)),
    halves('double-quick', 'Double flash, quick', 600, (start) => pulses(2, 80, 40, start)),
    halves('triple', 'Triple flash', 900, (start) => pulses(3, 70, 45, start)),
    halves('triple-slow', 'Triple flash, slow', 1000, (start) => pulses(3, 90, 60, start)),
    halves('triple-quick', 'Triple flash, quick', 600, (start) => pulses(3, 50, 30, start)),
    halves('quad', 'Quad flash', 800, (start) => pulses(4, 55, 30, start)),
    halves('quad-slow', 'Quad flash, slow', 1000, (start) => pulses(4, 65, 40, start)),
    halves('five', 'Five flashes', 1000, (start) => pulses(5, 50, 30, start)),
  ],
  uneven: [
    halves('short-long', 'Short, then long', 1000, (start) => uneven(start, 70, 70, 260)),
    halves('long-short', 'Long, then short', 1000, (start) => uneven(start, 260, 70, 70)),
    halves('two-short-long', 'Two short, one long', 1000, (start) => uneven(start, 60, 50, 60, 50, 200)),
    halves('beat', 'Two beats', 1000, (start) => uneven(start, 120, 130, 70)),
    halves('double-then-single', 'Double, rest, single', 1600, (start) =>
      uneven(start, 110, 50, 110, 250, 180),
    ),
    halves('triple-then-long', 'Triple, then long', 1200, (start) =>
      uneven(start, 60, 40, 60, 40, 60, 40, 200),
    ),
  ],
  'taking turns': [
    turns('turns-slow', 'Taking turns, slow', 1250),
    turns('turns', 'Taking turns', 1000),
    turns('turns-quick', 'Taking turns, quick', 600),
    halves('turns-overlap', 'Taking turns, overlapping', 1000, (start) =>
      start === 0 ? [on(0, 600)] : [on(0, 100), on(500, 1000)],
    ),
  ],
  together: [
    together('blink-slow', 'Blink together, slow', 1500, [on(0, 750)]),
    together('blink', 'Blink together', 1000, [on(0, 500)]),
    together('blink-quick', 'Blink together, quick', 600, [on(0, 250)]),
    together('double-together', 'Double flash together', 800, pulses(2, 110, 50, 0)),
    together('triple-together', 'Triple flash together', 900, pulses(3, 70, 45, 0)),
    together('mostly-on', 'Mostly on, blinked off', 1500, [on(0, 1250)]),
  ],
  'over a burn': [
    burnWith('burn-single', 'Single flash over a burn', 800, 220, 0.25),
    burnWith('burn-slow', 'Slow flash over a burn', 1250, 400, 0.3),
    burnWith('burn-night', 'Soft flash over a burn, for the night', 2000, 500, 0.5),
  ],
  'along a row': [
    steps('sweep', 'Sweep, first to last', 1000, filling(80, 800, forth)),
    steps('sweep-back', 'Sweep, last to first', 1000, filling(80, 800, back)),
    steps('sweep-slow', 'Slow sweep, first to last', 1500, filling(120, 1250, forth)),
    steps('sweep-back-slow', 'Slow sweep, last to first', 1500, filling(120, 1250, back)),
    steps('centre-out', 'From the middle out', 1000, filling(140, 800, fromMiddle)),
    steps(
      'edges-in',
      'From the ends in',
      1000,
      filling(140, 800, (place) => 3 - fromMiddle(place)),
    ),
    steps('run', 'One running, first to last', 960, running(120, forth)),
    steps('run-back', 'One running, last to first', 960, running(120, back)),
    steps('run-centre-out', 'Two running, from the middle out', 800, running(200, fromMiddle)),
    steps('bounce', 'One running to and fro', 1400, (place) =>
      place === 0 || place === STEPS - 1
        ? [on(place * 100, place * 100 + 100)]
        : [on(place * 100, place * 100 + 100), on(1400 - place * 100, 1500 - place * 100)],
    ),
    steps('every-other', 'Every other in turn', 800, (place) => [
      place % 2 === 0 ? on(0, 400) : on(400, 800),
    ]),
    steps('row-blink', 'The whole row at once', 1000, () => [on(0, 500)]),
  ],
};

/** Every pattern of the library, family by family. */
export const PATTERNS: readonly Pattern[] = PATTERN_FAMILIES.flatMap((family) => FAMILIES[family]);

/** The family a library pattern belongs to. */
export const familyOf = (id: string): PatternFamily =>
  PATTERN_FAMILIES.find((family) => FAMILIES[family].some((p) => p.id === id)) ?? 'steady';

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
