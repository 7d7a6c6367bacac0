import { withLeaves, type Condition, type InputEvent } from '../../design/condition.ts';
import { addFunction, withControls } from '../../design/controlEdits.ts';
import { stagesOf } from '../../design/controls.ts';
import {
  lightCue,
  newFunction,
  type ControlFunction,
  type Cue,
  type Target,
} from '../../design/functions.ts';
import { partInput } from '../../design/inputs.ts';
import type { Build } from '../../design/schema.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import type { MovingPart } from '../../vehicle/types.ts';
import { bindKey } from '../panelEdits.ts';
import type { SetClause, SetPick } from '../../design/lampSets.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { anyMeets, inColour, withRuledSet } from '../lampSets.ts';

/** A function that practitioners ask for again and again, ready to be laid on a build and then changed. */
export interface FunctionTemplate {
  readonly id: string;
  readonly name: string;
  readonly what: string;
  /** Why it cannot be laid on this build; null when it can. */
  readonly misfit: (build: Build) => string | null;
  readonly applyTemplate: (build: Build) => Build;
}

export const not = (of: Condition): Condition => ({ kind: 'not', of });
export const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });
export const all = (...of: Condition[]): Condition => ({ kind: 'all', of });
export const any = (...of: Condition[]): Condition => ({ kind: 'any', of });
export const isOn = (functionId: string): Condition => ({ kind: 'on', functionId });
export const press = (control: string): InputEvent => ({ kind: 'press', control, press: 'short' });
export const during = (condition: Condition, staysMs = 0): ControlFunction['when'] => ({
  way: 'while',
  condition,
  afterMs: 0,
  staysMs,
});
export const byKey = (control: string, clears: InputEvent[] = []): ControlFunction['when'] => ({
  way: 'latched',
  sets: [],
  clears,
  toggles: [press(control)],
  timeoutMs: 0,
});
/** Each press steps on, after the last off again; held, off at once. */
export const steppedBy = (control: string): ControlFunction['when'] => ({
  way: 'cycle',
  sets: [],
  steps: [press(control)],
  clears: [{ kind: 'press', control, press: 'long' }],
  wraps: 'off',
  timeoutMs: 0,
});
export const ofSet = (setId: string): Target => ({ kind: 'set', setId });
export const steady = (setId: string, ink: 'white' | 'red' | 'amber' | 'green' | 1, level = 1): Cue =>
  lightCue(ofSet(setId), ink, 'steady', { level });

/** The warning stages beyond the first, during which supplements burn. */
export const laterStages = (build: Build): Condition[] =>
  stagesOf(build)
    .filter(({ mode }) => mode !== null && mode >= 2)
    .map(({ id }) => isOn(id));
export const warning = (build: Build): Condition[] =>
  stagesOf(build)
    .filter(({ mode }) => mode !== 0)
    .map(({ id }) => isOn(id));

export const rearPart = (build: Build): MovingPart | undefined =>
  vehicleOf(build.vehicle).parts.find((p) => p.kind === 'hatch' || p.kind === 'tailgate');

/** That the hatch or tailgate is closed; nothing where the vehicle has none. */
export function rearClosed(build: Build): Condition[] {
  const part = rearPart(build);
  return part === undefined ? [] : [not(is(partInput(part.id), ...part.stops.map((s) => s.id)))];
}

export const white = inColour('white');
export const some = (build: Build, clauses: SetClause[], what: string): string | null =>
  anyMeets(build, clauses) ? null : `there is no ${what}`;
export const there = (build: Build, id: string): string | null =>
  build.controls.functions.some((fn) => fn.id === id) ? 'it already exists' : null;
export const first = (...reasons: (string | null)[]): string | null =>
  reasons.find((r) => r !== null) ?? null;

/** Flashers of tied-in lamps of the maker's stop for a signal. */
function stoppingFor(build: Build, signalId: string): Build {
  const lookup = lookupOf(build);
  return {
    ...build,
    placements: build.placements.map((p) =>
      lookup.fixture(p.fixtureId).kind === 'factory' && !p.stopsFor.includes(signalId)
        ? { ...p, stopsFor: [...p.stopsFor, signalId] }
        : p,
    ),
  };
}

/** A set of what is chosen and a key for a function about it, laid where the function belongs. */
export function layByKey(
  b: Build,
  {
    set: [setId, setName, clauses, pick],
    key: [stem, label],
    id,
    name,
    kind,
    cues,
    more = {},
  }: {
    readonly set: readonly [id: string, name: string, clauses: SetClause[], pick?: SetPick];
    readonly key: readonly [stem: string, label: string];
    readonly id: string;
    readonly name: string;
    readonly kind: ControlFunction['kind'];
    readonly cues: Cue[];
    readonly more?: Partial<ControlFunction>;
  },
): Build {
  const { build } = withRuledSet(b, setId, setName, clauses, pick);
  const key = bindKey(build, stem, label, id);
  return applyTemplate(key.build, newFunction(id, name, kind, byKey(key.controlId), cues, more));
}

/** Puts a function where it belongs: signals on top, what takes light away next, other light above the stages and what stands for one, the rest below. */
export function applyTemplate(build: Build, fn: ControlFunction): Build {
  const { functions } = build.controls;
  // What shows the whole vehicle at one command would hide what is laid below it, as a stage would.
  const stage = functions.findIndex((f) => f.kind === 'stage' || (f.kind === 'warning' && f.mode !== null));
  if (fn.kind === 'signal') return stoppingFor(addFunction(build, fn, 0), fn.id);
  const signals = functions.filter((f) => f.kind === 'signal').length;
  if (fn.kind === 'cut') return addFunction(build, fn, signals);
  const above = fn.kind === 'light' || fn.kind === 'warning';
  return addFunction(build, fn, above && stage >= 0 ? stage : undefined);
}

/** A function with other conditions in place of its own. */
export function asking(fn: ControlFunction, change: (condition: Condition) => Condition): ControlFunction {
  const when = fn.when.way === 'while' ? { ...fn.when, condition: change(fn.when.condition) } : fn.when;
  return { ...fn, when, enabledBy: fn.enabledBy === null ? null : change(fn.enabledBy) };
}

/** Wherever a function that is no output asks for one, it asks for the other as well: that counts as the first there. */
export function alsoWhile(build: Build, askedId: string, otherId: string): Build {
  const either = (c: Condition): Condition =>
    withLeaves(c, (leaf) =>
      leaf.kind === 'on' && leaf.functionId === askedId ? any(leaf, isOn(otherId)) : leaf,
    );
  return withControls(build, {
    functions: build.controls.functions.map((fn) => (fn.kind === 'load' ? fn : asking(fn, either))),
  });
}

/** Puts a function above all light and other warning, below signals and what takes light away. */
export function aboveOthers(build: Build, id: string): Build {
  const { functions } = build.controls;
  const mine = functions.filter((f) => f.id === id);
  const others = functions.filter((f) => f.id !== id);
  const at = others.findIndex(({ kind }) => kind !== 'signal' && kind !== 'cut');
  return withControls(build, { functions: [...others.slice(0, at), ...mine, ...others.slice(at)] });
}
