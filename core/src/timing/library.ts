import type { Direction, Pattern, RowMove } from './pattern.ts';
import type { Slot, Span } from './span.ts';

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
  kind: 'drawn',
  by: 'phase',
  id,
  name,
  cycleMs,
  lines: [at(0), at(cycleMs / 2)],
});

/** A pattern that all phases show at once. */
const together = (id: string, name: string, cycleMs: number, spans: Span[]): Pattern => ({
  kind: 'drawn',
  by: 'phase',
  id,
  name,
  cycleMs,
  lines: [spans],
});

/** The two phases take turns without a dark moment between them. */
const turns = (id: string, name: string, cycleMs: number): Pattern =>
  halves(id, name, cycleMs, (start) => [on(start, start + cycleMs / 2)]);

/** A burn at a low level with a flash on top of it, in phase B in the other half of the cycle. */
const burnWith = (id: string, name: string, cycleMs: number, flashMs: number, low: number): Pattern => ({
  kind: 'drawn',
  by: 'phase',
  id,
  name,
  cycleMs,
  lines: [
    [on(0, flashMs), on(flashMs, cycleMs, low)],
    [
      on(0, cycleMs / 2, low),
      on(cycleMs / 2, cycleMs / 2 + flashMs),
      on(cycleMs / 2 + flashMs, cycleMs, low),
    ],
  ],
});

/** The phases take turns in the order of their letters, each for its share of the cycle. */
const inTurn = (
  id: string,
  name: string,
  cycleMs: number,
  phases: number,
  at: (startMs: number) => Span[],
): Pattern => ({
  kind: 'drawn',
  by: 'phase',
  id,
  name,
  cycleMs,
  lines: Array.from({ length: phases }, (_, i) => at((i * cycleMs) / phases)),
});

const ramp = (fromMs: number, toMs: number, level: number, endLevel: number): Span => ({
  fromMs,
  toMs,
  level,
  endLevel,
});

/** Spans that light these colour slots, one after another. */
const inSlots = (spans: readonly Span[], ...slots: readonly Slot[]): Span[] =>
  spans.map((s, i) => ({ ...s, slot: slots[i % slots.length] ?? 1 }));

const HEADS = 8;
/** Places in a row are counted from the left as seen from behind. */
const declared = (move: RowMove): { direction?: Direction } => {
  switch (move) {
    case 'first-to-last':
      return { direction: 'right' };
    case 'last-to-first':
      return { direction: 'left' };
    case 'middle-out':
      return { direction: 'from the middle' };
    case 'ends-in':
    case 'to-and-fro':
    case 'every-other':
    case 'build-up':
      return {};
  }
};

/** Along a row of eight: what is lit stays lit, and rests before it begins again. */
const filling = (
  id: string,
  name: string,
  move: RowMove,
  stepMs: number,
  holdMs: number,
  restMs: number,
): Pattern => ({
  kind: 'row',
  id,
  name,
  ...declared(move),
  move,
  heads: HEADS,
  stepMs,
  show: 'hold',
  holdMs,
  restMs,
});
/** Along a row of eight: each lit for its own step. */
const running = (id: string, name: string, move: RowMove, stepMs: number, restMs = 0): Pattern => ({
  kind: 'row',
  id,
  name,
  ...declared(move),
  move,
  heads: HEADS,
  stepMs,
  show: 'run',
  holdMs: 0,
  restMs,
});

/** Two phases by the same bounds, each with its own lot. */
const chance = (
  id: string,
  name: string,
  cycleMs: number,
  pulse: { leastMs: number; mostMs: number },
  dark: { leastMs: number; mostMs: number },
): Pattern => ({ kind: 'random', id, name, seed: 7, cycleMs, phases: 2, pulse, dark });

const sequence = (
  id: string,
  name: string,
  ...parts: readonly [patternId: string, times: number][]
): Pattern => ({
  kind: 'sequence',
  id,
  name,
  parts: parts.map(([patternId, times]) => ({ patternId, times })),
});

/** The families of the library, in the order a list shows them. */
export const PATTERN_FAMILIES = [
  'steady',
  'one flash',
  'flash groups',
  'uneven',
  'alternating',
  'together',
  'over steady burn',
  'rising and falling',
  'colour by colour',
  'along a row',
  'one after another',
  'random',
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
  alternating: [
    turns('turns-slow', 'Alternating, slow', 1250),
    turns('turns', 'Alternating', 1000),
    turns('turns-quick', 'Alternating, quick', 600),
    halves('turns-overlap', 'Alternating, overlapping', 1000, (start) =>
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
  'over steady burn': [
    burnWith('burn-single', 'Single flash over steady burn', 800, 220, 0.25),
    burnWith('burn-slow', 'Slow flash over steady burn', 1250, 400, 0.3),
    burnWith('burn-night', 'Soft flash over steady burn, night', 2000, 500, 0.5),
  ],
  'rising and falling': [
    halves('turning', 'Turning beam', 700, (start) =>
      [ramp(0, 90, 0, 1), ramp(90, 180, 1, 0)].map((s) => ({
        ...s,
        fromMs: start + s.fromMs,
        toMs: start + s.toMs,
      })),
    ),
    halves('turning-slow', 'Turning beam, slow', 1200, (start) =>
      [ramp(0, 150, 0, 1), ramp(150, 300, 1, 0)].map((s) => ({
        ...s,
        fromMs: start + s.fromMs,
        toMs: start + s.toMs,
      })),
    ),
    together('breathing', 'Rising and falling softly', 3000, [
      ramp(0, 1500, 0.1, 1),
      ramp(1500, 3000, 1, 0.1),
    ]),
    {
      kind: 'drawn',
      by: 'phase',
      id: 'fade-over',
      name: 'Fading from one half to the other',
      cycleMs: 1200,
      lines: [
        [ramp(0, 600, 1, 0), ramp(600, 1200, 0, 1)],
        [ramp(0, 600, 0, 1), ramp(600, 1200, 1, 0)],
      ],
    },
    halves('afterglow', 'Flash with an afterglow', 800, (start) => [
      on(start, start + 90),
      ramp(start + 90, start + 390, 0.5, 0),
    ]),
  ],
  'colour by colour': [
    halves('two-and-one', 'Two of the first colour, one of the second', 1000, (start) =>
      inSlots(pulses(3, 90, 60, start), 1, 1, 2),
    ),
    halves('colour-change', 'First colour, then the second', 1000, (start) =>
      inSlots(pulses(2, 160, 60, start), 1, 2),
    ),
    halves('three-colours', 'One flash of each of three colours', 1200, (start) =>
      inSlots(pulses(3, 120, 60, start), 1, 2, 3),
    ),
    {
      kind: 'drawn',
      by: 'phase',
      id: 'colours-turn',
      name: 'Alternating halves, colour changes each time',
      cycleMs: 1600,
      lines: [inSlots([on(0, 400), on(800, 1200)], 1, 2), inSlots([on(400, 800), on(1200, 1600)], 2, 1)],
    },
  ],
  'along a row': [
    filling('sweep', 'Sweep to the right', 'first-to-last', 80, 160, 200),
    filling('sweep-back', 'Sweep to the left', 'last-to-first', 80, 160, 200),
    filling('sweep-slow', 'Slow sweep to the right', 'first-to-last', 120, 290, 250),
    filling('sweep-back-slow', 'Slow sweep to the left', 'last-to-first', 120, 290, 250),
    filling('centre-out', 'Centre-out', 'middle-out', 140, 240, 200),
    filling('edges-in', 'Ends-in', 'ends-in', 140, 240, 200),
    running('run', 'One running to the right', 'first-to-last', 120),
    running('run-back', 'One running to the left', 'last-to-first', 120),
    running('run-centre-out', 'Two running, centre-out', 'middle-out', 200),
    running('bounce', 'One running back and forth', 'to-and-fro', 100),
    running('build-up', 'Building up, one more at every flash', 'build-up', 140, 200),
    running('every-other', 'Every other, sequential', 'every-other', 400),
    {
      kind: 'drawn',
      by: 'order',
      id: 'row-blink',
      name: 'The whole row at once',
      cycleMs: 1000,
      lines: [[on(0, 500)]],
    },
  ],
  'one after another': [
    inTurn('quarters-turn', 'Four quarters, sequential', 1200, 4, (start) => pulses(1, 250, 0, start)),
    inTurn('quarters-double', 'Four quarters, sequential, double flash', 1400, 4, (start) =>
      pulses(2, 90, 50, start),
    ),
    sequence('slow-then-quick', 'Slow, then quick', ['single-slow', 3], ['single-quick', 4]),
    sequence('triple-then-turns', 'Triple flash, then alternating', ['triple', 3], ['turns', 2]),
    sequence('double-then-quad', 'Double flash, then quad flash', ['double', 3], ['quad', 3]),
  ],
  random: [
    chance('chance', 'Random', 6400, { leastMs: 60, mostMs: 180 }, { leastMs: 260, mostMs: 640 }),
    chance('chance-calm', 'Random, calm', 8000, { leastMs: 150, mostMs: 350 }, { leastMs: 450, mostMs: 900 }),
  ],
};

/** Every pattern of the library, family by family. */
export const PATTERNS: readonly Pattern[] = PATTERN_FAMILIES.flatMap((family) => FAMILIES[family]);

/** The family a library pattern belongs to; null for one that is not of the library. */
export const familyOf = (id: string): PatternFamily | null =>
  PATTERN_FAMILIES.find((family) => FAMILIES[family].some((p) => p.id === id)) ?? null;
