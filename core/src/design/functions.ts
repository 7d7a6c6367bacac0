import { z } from 'zod';
import { Phase } from '../timing/pattern.ts';
import { Slot } from '../timing/span.ts';
import type { Ambient } from '../words/ambient.ts';
import { Colour } from '../words/colour.ts';
import { Id, Name } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';
import { BoardText } from '../words/boardText.ts';
import { Condition, InputEvent, InputValue } from './condition.ts';

/** A build has no more functions, and a function no more cues. */
export const MOST_FUNCTIONS = 64;
export const MOST_CUES = 64;
/** All functions together have no more cues: each is checked against every module it speaks to. */
export const MOST_CUES_IN_ALL = 1500;

/** Whom a cue speaks to: the modules of a sync group, of a set, or those in no group. */
export const Target = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('group'), groupId: Id }),
    z.strictObject({ kind: z.literal('set'), setId: Id }),
    z.strictObject({ kind: z.literal('ungrouped') }),
  ],
  { error: "must be of kind 'group', 'set' or 'ungrouped'" },
);
export type Target = z.infer<typeof Target>;

export const targetKey = (target: Target): string => {
  switch (target.kind) {
    case 'group':
      return `group ${target.groupId}`;
    case 'set':
      return `set ${target.setId}`;
    case 'ungrouped':
      return 'ungrouped';
  }
};

export const sameTarget = (a: Target, b: Target): boolean => targetKey(a) === targetKey(b);

/** The modules of a sync group as a target; those in no group for null. */
export const groupTarget = (groupId: string | null): Target =>
  groupId === null ? { kind: 'ungrouped' } : { kind: 'group', groupId };

/** What a cue lights: a colour slot by number, or a colour wherever a module has it. */
export const CueColour = z.union([Slot, Colour], { error: 'must be colour slot 1, 2 or 3, or a colour' });
export type CueColour = z.infer<typeof CueColour>;

/** A module's own line of a pattern, for one cue alone. */
const OwnPhase = z.strictObject({
  placementId: Id,
  moduleId: Id,
  phase: Phase,
  /** Place in a sweep, from 1. */
  order: z.int().min(1).max(64),
});

/** In a function: light that some modules show. */
export const LightCue = z.strictObject({
  show: z.literal('light'),
  target: Target,
  patternId: Id,
  /** Shown instead at night; null shows the same. */
  nightPatternId: Id.nullable(),
  ink: CueColour,
  level: numberBetween(0.05, 1),
  /** Its share of that level when ambient is night. */
  nightLevel: numberBetween(0.05, 1),
  /** Lines of the pattern that modules show here instead of their own; null changes none. */
  phases: z.array(OwnPhase).max(400).nullable(),
  /** Leaves to weaker functions what it does not light itself. */
  adds: z.boolean(),
  /** Whether dims act on it; null goes by the kind of its function. */
  dimmed: z.boolean().nullable(),
  /** What message boards say while they are lit by it; empty leaves each its own text. */
  text: BoardText,
});
export type LightCue = z.infer<typeof LightCue>;

/** In a function: light that is taken away. */
export const DarkCue = z.strictObject({
  show: z.literal('dark'),
  target: Target,
  /** Forbidden to weaker functions; none takes the whole module. */
  colours: z.array(Colour).max(8),
  adds: z.boolean(),
});
export type DarkCue = z.infer<typeof DarkCue>;

export const Cue = z.discriminatedUnion('show', [LightCue, DarkCue], {
  error: "must be a cue that shows 'light' or 'dark'",
});
export type Cue = z.infer<typeof Cue>;

/** What a function is for, by which it is ranked and dimmed. */
export const FUNCTION_KINDS = [
  'stage',
  'warning',
  'light',
  'signal',
  'cut',
  'dim',
  'load',
  'condition',
] as const;
export const FunctionKind = z.enum(FUNCTION_KINDS, { error: `must be one of ${FUNCTION_KINDS.join(', ')}` });
export type FunctionKind = z.infer<typeof FunctionKind>;

/** Dims what other functions light. */
export const Dim = z.strictObject({
  targets: z.array(Target).min(1, 'must name at least one target').max(16),
  factor: numberBetween(0.05, 1),
  /** The kinds of function it acts on. */
  kinds: z.array(FunctionKind).min(1, 'must name at least one kind').max(FUNCTION_KINDS.length),
});
export type Dim = z.infer<typeof Dim>;

/** What a function shows while it is on; a cycle has one of these for each of its numbers. */
export const FunctionEffect = z.strictObject({
  cues: z.array(Cue).max(MOST_CUES, `must be at most ${MOST_CUES} cues`),
  dims: z.array(Dim).max(8),
  /** Outputs other than lamps: a siren's tone, a gate. */
  loads: z.array(z.strictObject({ loadId: Id, value: InputValue })).max(8),
});
export type FunctionEffect = z.infer<typeof FunctionEffect>;

const Ms = z
  .int('must be whole milliseconds')
  .min(0, 'must be at least 0')
  .max(86_400_000, 'must be at most a day');
const Events = z.array(InputEvent).max(12, 'must be at most 12 events');

/** When a function is on. Times of 0 are no timers. */
export const When = z.discriminatedUnion(
  'way',
  [
    z.strictObject({ way: z.literal('always') }),
    z.strictObject({
      way: z.literal('while'),
      condition: Condition,
      /** The condition must have held so long first. */
      afterMs: Ms,
      /** It stays on so long after the condition ended. */
      staysMs: Ms,
    }),
    z.strictObject({
      way: z.literal('latched'),
      sets: Events,
      clears: Events,
      toggles: Events,
      /** It clears so long after the last event that set it. */
      timeoutMs: Ms,
    }),
    z.strictObject({
      way: z.literal('cycle'),
      sets: Events,
      steps: Events,
      clears: Events,
      /** After the last number: off, or the first again. */
      wraps: z.enum(['off', 'first'], { error: 'must be off or first' }),
      timeoutMs: Ms,
    }),
  ],
  { error: "must be on in the way 'always', 'while', 'latched' or 'cycle'" },
);
export type When = z.infer<typeof When>;

/** A label fits the key it stands on. */
export const LONGEST_LABEL = 12;
export const Label = z
  .string({ error: 'must be text' })
  .max(LONGEST_LABEL, `must be at most ${LONGEST_LABEL} characters`)
  .regex(/^[^<>\p{Control}]*$/u, 'must be one line without < or >');

/** Something an operator, or the vehicle, switches. Its rank is its place in the list, strongest first. */
export const ControlFunction = z.strictObject({
  id: Id,
  name: Name,
  /** For the key. */
  label: Label,
  kind: FunctionKind,
  /** What rule packs call it while it is on: stage 1, 2, 3, or 0; null leaves that to others. */
  mode: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]).nullable(),
  /** One, or for a cycle one for each number from 1. */
  shows: z.array(FunctionEffect).min(1, 'must show something').max(8, 'must be at most 8'),
  when: When,
  /** What must be so besides; null asks for nothing. */
  enabledBy: Condition.nullable(),
  /** It forgets that it was on when it is no longer enabled. */
  forgets: z.boolean(),
  /** Functions of one choice put each other out. */
  choiceId: Id.nullable(),
  /** It may burn on with the key off. */
  mayStay: z.boolean(),
  /** The programme's own master switch does not count for it. */
  withoutMaster: z.boolean(),
});
export type ControlFunction = z.infer<typeof ControlFunction>;

/** The pattern a cue shows by day, or by night where it names another for it. */
export const patternShown = (cue: LightCue, ambient: Ambient): string =>
  ambient === 'night' ? (cue.nightPatternId ?? cue.patternId) : cue.patternId;

/** A cue by its usual values. */
export const lightCue = (
  target: Target,
  ink: CueColour,
  patternId: string,
  more: Partial<LightCue> = {},
): LightCue => ({
  show: 'light',
  target,
  patternId,
  nightPatternId: null,
  ink,
  level: 1,
  nightLevel: 1,
  phases: null,
  adds: false,
  dimmed: null,
  text: '',
  ...more,
});

export const darkCue = (target: Target, colours: Colour[] = []): DarkCue => ({
  show: 'dark',
  target,
  colours,
  adds: false,
});

export const shown = (cues: Cue[], more: Partial<FunctionEffect> = {}): FunctionEffect => ({
  cues,
  dims: [],
  loads: [],
  ...more,
});

/** Words that no label ends with. */
const DANGLING = /(?: (?:a|and|at|by|of|or|the|to))+$/;

/** What a key says of a name: as many of its words as it bears; a first word that is too long ends with a dot. */
export function labelFrom(name: string): string {
  if (name.length <= LONGEST_LABEL) return name;
  const cut = name.slice(0, LONGEST_LABEL + 1).lastIndexOf(' ');
  return cut > 0 ? name.slice(0, cut).replace(DANGLING, '') : `${name.slice(0, LONGEST_LABEL - 1)}.`;
}

/** A function by its usual values. */
export const newFunction = (
  id: string,
  name: string,
  kind: FunctionKind,
  when: ControlFunction['when'],
  cues: Cue[],
  more: Partial<ControlFunction> = {},
): ControlFunction => ({
  id,
  name,
  label: labelFrom(name),
  kind,
  mode: null,
  shows: [shown(cues)],
  when,
  enabledBy: null,
  forgets: false,
  choiceId: null,
  mayStay: false,
  withoutMaster: false,
  ...more,
});
