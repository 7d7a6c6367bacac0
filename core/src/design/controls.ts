import { z } from 'zod';
import { Id, Name } from '../words/names.ts';
import { Condition, InputEvent, InputValue } from './condition.ts';
import { LampSet, MOST_SETS } from './lampSets.ts';
import { ControlFunction, Label, MOST_FUNCTIONS, type FunctionEffect } from './functions.ts';
import { CabPlace, CONTROL_KINDS, MOST_COLUMNS, MOST_ROWS, OwnInput, Panel } from './panel.ts';

/** An output that is no lamp: a siren with its tones, a horn, a gate. The first value is off. */
export const AuxOutput = z.strictObject({
  id: Id,
  name: Name,
  values: z.array(InputValue).min(2, 'must have off and one value more').max(12),
});
export type AuxOutput = z.infer<typeof AuxOutput>;

/** Where the first holds, the second must too; an event that would lead elsewhere does not happen. */
export const Implication = z.strictObject({ when: Condition, then: Condition });
export type Implication = z.infer<typeof Implication>;

/** When an input arrives at a value, another takes one in the same event. */
export const InputLink = z.strictObject({
  input: Id,
  values: z.array(InputValue).min(1).max(16),
  follower: Id,
  takes: InputValue,
});
export type InputLink = z.infer<typeof InputLink>;

/** One thing that happens in a trial. */
export const TestStep = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('event'), event: InputEvent }),
  z.strictObject({ kind: z.literal('wait'), ms: z.int().min(1).max(86_400_000) }),
]);
export type TestStep = z.infer<typeof TestStep>;

/** What was tried by hand and must come out the same after every change. */
export const ControlTest = z.strictObject({
  id: Id,
  name: Name,
  steps: z.array(TestStep).max(200, 'must be at most 200 steps'),
  /** The functions that must be on in the end; a cycle with its number, as "emergency:2". */
  on: z.array(z.string().max(80)).max(MOST_FUNCTIONS),
});
export type ControlTest = z.infer<typeof ControlTest>;

/** Where the controller gets an input from. */
export const TRIGGER_SOURCES = ['wire', 'data bus', 'own sensor'] as const;
export const Trigger = z.strictObject({
  input: Id,
  source: z.enum(TRIGGER_SOURCES, { error: `must be one of ${TRIGGER_SOURCES.join(', ')}` }),
  /** Which wire, connector or message. */
  note: z
    .string()
    .max(160, 'must be at most 160 characters')
    .regex(/^[^<>\p{Control}]*$/u, 'must be one line without < or >'),
});
export type Trigger = z.infer<typeof Trigger>;

/** A control of the panel that operators are used to, and what it did. */
export const PreviousControl = z.strictObject({
  id: Id,
  kind: z.enum(CONTROL_KINDS, { error: `must be one of ${CONTROL_KINDS.join(', ')}` }),
  label: Label,
  /** Columns and rows from 1, from the top left. */
  column: z.int().min(1).max(MOST_COLUMNS),
  row: z.int().min(1).max(MOST_ROWS),
  /** The functions that do now what it did; none where nothing does. */
  functionIds: z.array(Id).max(8),
});
export type PreviousControl = z.infer<typeof PreviousControl>;

/** What switches what. */
export const Controls = z.strictObject({
  /** Strongest first. */
  functions: z.array(ControlFunction).max(MOST_FUNCTIONS, `must be at most ${MOST_FUNCTIONS} functions`),
  sets: z.array(LampSet).max(MOST_SETS, `must be at most ${MOST_SETS} sets`),
  loads: z.array(AuxOutput).max(16, 'must be at most 16 loads'),
  panels: z.array(Panel).max(8, 'must be at most 8 panels'),
  /** Room for panels in the cab. */
  cabPlaces: z.array(CabPlace).max(24, 'must be at most 24 places'),
  /** Where inputs come from, as far as that is settled. */
  triggers: z.array(Trigger).max(96, 'must be at most 96 triggers'),
  /** The panel that operators are used to. */
  oldPanel: z.array(PreviousControl).max(96, 'must be at most 96 old controls'),
  inputs: z.array(OwnInput).max(24, 'must be at most 24 inputs'),
  /** What cannot happen together. */
  never: z.array(Implication).max(24, 'must be at most 24'),
  follows: z.array(InputLink).max(24, 'must be at most 24'),
  /** A master switch or the ignition, asked for by every function that does not go without it. */
  enabledBy: Condition.nullable(),
  trials: z.array(ControlTest).max(60, 'must be at most 60 tests'),
});
export type Controls = z.infer<typeof Controls>;

/** What holds controls, such as a build. */
export interface Controlled {
  readonly controls: Controls;
}

/** The stages of a build in order of urgency, Off first. */
export function stagesOf({ controls }: Controlled): readonly ControlFunction[] {
  return controls.functions
    .filter((f) => f.kind === 'stage')
    .toSorted((a, b) => (a.mode ?? 0) - (b.mode ?? 0));
}

/** Every function as columns show them: the stages in order of urgency, then the others by rank. */
export const functionsInOrder = (build: Controlled): readonly ControlFunction[] => [
  ...stagesOf(build),
  ...build.controls.functions.filter((f) => f.kind !== 'stage'),
];

/**
 * A function of a build.
 * @throws {RangeError} it has none of that id
 */
export function functionAt({ controls: { functions } }: Controlled, id: string): ControlFunction {
  const found = functions.find((f) => f.id === id);
  if (found === undefined)
    throw new RangeError(`no function '${id}'; there are ${functions.map((f) => f.id).join(', ')}`);
  return found;
}

/** A function that is on, as a key: its id, with the number of its cycle after the first, as "emergency:2". */
export type ActiveFunction = string;

export const onKey = (id: string, number: number): ActiveFunction => (number === 1 ? id : `${id}:${number}`);

/** A function that is on, read back from its key. */
export function readOn(on: ActiveFunction): { readonly id: string; readonly number: number } {
  const [id = '', number = '1'] = on.split(':');
  return { id, number: Number(number) };
}

/** Every way in which a function can be on. */
export const onsOf = (fn: ControlFunction): ActiveFunction[] => fn.shows.map((_, i) => onKey(fn.id, i + 1));

/**
 * What a function that is on shows.
 * @throws {RangeError} the build has no such function, or its cycle no such number
 */
export function effectsOf(build: Controlled, on: ActiveFunction): FunctionEffect {
  const { id, number } = readOn(on);
  const found = functionAt(build, id).shows[number - 1];
  if (found === undefined) throw new RangeError(`function '${id}' has no number ${number}`);
  return found;
}

/** A function that is on, with what people call it. */
export interface Named {
  readonly on: ActiveFunction;
  readonly name: string;
}

/** Every way in which a function can be on, by name: the stages in order of urgency, then the others by rank. */
export const namedOns = (build: Controlled): Named[] =>
  functionsInOrder(build).flatMap((fn) =>
    onsOf(fn).map((on, i) => ({ on, name: i === 0 ? fn.name : `${fn.name} (${i + 1})` })),
  );

/** Functions that are on, in words: "Stage 2, Hatch supplement". */
export function activeFunctionNames(build: Controlled, ons: readonly ActiveFunction[]): string {
  const names = namedOns(build)
    .filter(({ on }) => ons.includes(on))
    .map(({ name }) => name);
  return names.length === 0 ? 'Nothing on' : names.join(', ');
}
