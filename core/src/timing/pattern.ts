import { z } from 'zod';
import { Id, Name } from '../words/names.ts';
import { inOrder, Span, type Slot } from './span.ts';

/** Phase letters of a sync group, in the order of a pattern's lines. */
export const PHASES = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'] as const;
export const Phase = z.enum(PHASES, { error: 'must be a phase letter from A to H' });
export type Phase = z.infer<typeof Phase>;

export const CYCLE_MS = { min: 20, max: 60_000 } as const;
export const MOST_LINES = 32;

const CycleMs = z
  .int('must be whole milliseconds')
  .min(CYCLE_MS.min, `must be at least ${CYCLE_MS.min} ms`)
  .max(CYCLE_MS.max, `must be at most ${CYCLE_MS.max} ms`);
const Ms = z
  .int('must be whole milliseconds')
  .min(10, 'must be at least 10 ms')
  .max(20_000, 'must be at most 20000 ms');
const Stretch = z
  .strictObject({ leastMs: Ms, mostMs: Ms })
  .refine((s) => s.leastMs <= s.mostMs, 'leastMs must not exceed mostMs');

/** Which way a pattern is meant to move, as seen from behind the vehicle. */
export const DIRECTIONS = ['left', 'right', 'from the middle'] as const;
export const Direction = z.enum(DIRECTIONS, { error: `must be one of ${DIRECTIONS.join(', ')}` });
export type Direction = z.infer<typeof Direction>;

const named = {
  id: Id,
  name: Name,
  /** Declared, and then checked where the pattern is shown; not said for one that means no direction. */
  direction: Direction.optional(),
};

/** Drawn bar by bar: one line for each phase letter, or for each place in a row. */
const DrawnPattern = z
  .strictObject({
    kind: z.literal('drawn'),
    ...named,
    by: z.enum(['phase', 'order'], { error: "must be 'phase' or 'order'" }),
    cycleMs: CycleMs,
    lines: z.array(z.array(Span).max(200)).min(1).max(MOST_LINES),
  })
  .refine(
    (p) => p.lines.every((spans) => inOrder(spans, p.cycleMs)),
    'spans must be in order, apart from each other and within the cycle',
  )
  .refine((p) => p.by === 'order' || p.lines.length <= PHASES.length, `at most ${PHASES.length} phases`);

/** Ways a light can go along a row of heads. */
export const ROW_MOVES = [
  'first-to-last',
  'last-to-first',
  'middle-out',
  'ends-in',
  'to-and-fro',
  'every-other',
  'build-up',
] as const;
export type RowMove = (typeof ROW_MOVES)[number];

/** Along a row of any number of heads, one step after another. */
const RowPattern = z.strictObject({
  kind: z.literal('row'),
  ...named,
  move: z.enum(ROW_MOVES, { error: `must be one of ${ROW_MOVES.join(', ')}` }),
  heads: z.int().min(2, 'a row has at least 2 heads').max(MOST_LINES, `at most ${MOST_LINES} heads`),
  stepMs: Ms,
  /** "hold": what is lit stays lit until all go dark; "run": each is lit for its own step. */
  show: z.enum(['hold', 'run'], { error: "must be 'hold' or 'run'" }),
  /** How long all stay lit once the last step is on. */
  holdMs: z.int().min(0).max(20_000),
  /** How long all are dark before it begins again. */
  restMs: z.int().min(0).max(20_000),
});

/** A recipe of a few letters makes no more pulses than this: everybody who opens the build works them out. */
const MOST_RANDOM_PULSES = 3000;

/** Pulses and rests of chance lengths within bounds, the same for the same seed. */
const RandomPattern = z
  .strictObject({
    kind: z.literal('random'),
    ...named,
    seed: z.int().min(0).max(999_999),
    cycleMs: CycleMs,
    /** Lines that draw their own lot, by phase letter. */
    phases: z.int().min(1).max(PHASES.length),
    pulse: Stretch,
    dark: Stretch,
  })
  .refine(
    (p) => pulsesThatFit(p) !== null,
    'no number of pulses and rests of these lengths fills the cycle exactly',
  )
  .refine(
    (p) => (pulsesThatFit(p)?.most ?? 0) * p.phases <= MOST_RANDOM_PULSES,
    `at most ${MOST_RANDOM_PULSES} pulses over all phases; take a shorter cycle, longer pulses or fewer phases`,
  );

/** The fewest and the most pulses that can fill a cycle within the bounds; null when none can. */
export function pulsesThatFit(p: {
  readonly cycleMs: number;
  readonly pulse: { readonly leastMs: number; readonly mostMs: number };
  readonly dark: { readonly leastMs: number; readonly mostMs: number };
}): { readonly fewest: number; readonly most: number } | null {
  const fewest = Math.max(1, Math.ceil(p.cycleMs / (p.pulse.mostMs + p.dark.mostMs)));
  const most = Math.floor(p.cycleMs / (p.pulse.leastMs + p.dark.leastMs));
  return fewest <= most ? { fewest, most } : null;
}

/** Patterns one after another, each a number of times: slow, then fast. */
const SequencePattern = z.strictObject({
  kind: z.literal('sequence'),
  ...named,
  parts: z
    .array(z.strictObject({ patternId: Id, times: z.int().min(1).max(50) }))
    .min(1, 'must name at least one pattern')
    .max(20),
});

/** A flash pattern as it is made and kept. */
export const Pattern = z.discriminatedUnion(
  'kind',
  [DrawnPattern, RowPattern, RandomPattern, SequencePattern],
  { error: "must be a pattern of kind 'drawn', 'row', 'random' or 'sequence'" },
);
export type Pattern = z.infer<typeof Pattern>;
export type PatternOf<K extends Pattern['kind']> = Extract<Pattern, { kind: K }>;

/** A pattern worked out: what each of its lines shows, over and over. */
export interface Cycle {
  /** Whether a lamp takes its line by its phase letter or by its place in the row. */
  readonly by: 'phase' | 'order';
  readonly cycleMs: number;
  readonly lines: readonly (readonly Span[])[];
  /** Flashes or groups of flashes a minute, the slowest and the fastest in it: what a rate limit speaks of. */
  readonly slowestPerMinute: number;
  readonly fastestPerMinute: number;
  /** The most pulses that make up one flash of it. */
  readonly pulsesAFlash: number;
}

/**
 * The line of a cycle that a lamp shows, from 0.
 * @param order - 1, 2, 3 …; letters and places beyond the last line begin again with the first
 */
export function lineOf({ by, lines }: Cycle, phase: Phase, order: number): number {
  return (by === 'phase' ? PHASES.indexOf(phase) : order - 1) % lines.length;
}

/** The spans a lamp shows, by its phase letter or its place in the row. */
export const spansFor = (cycle: Cycle, phase: Phase, order: number): readonly Span[] =>
  cycle.lines[lineOf(cycle, phase, order)] ?? [];

/** What a line is called: its phase letter, or its place. */
export const lineName = (by: Cycle['by'], line: number): string =>
  by === 'phase' ? `Phase ${PHASES[line] ?? ''}` : `Step ${line + 1}`;

/** The colour slots that a pattern lights when a stage cues it on one. */
export const slotsOf = ({ lines }: Cycle, cued: Slot): readonly Slot[] => [
  ...new Set(lines.flatMap((spans) => spans.map((s) => s.slot ?? cued))),
];
