import {
  functionAt,
  functionsInOrder,
  onsOf,
  readOn,
  stagesOf,
  type ActiveFunction,
} from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { lampMoves } from '../design/lampMoves.ts';
import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { stopOf, stopsOf, vehicleOf } from '../vehicle/vehicle.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';

/** The functions that are on, the stops at which moving parts stand, the light around. */
export interface State {
  /** In any order. */
  readonly on: readonly ActiveFunction[];
  /** Stops by id, in any order; a part with none named is shut. */
  readonly open: readonly string[];
  readonly ambient: Ambient;
  /** What lights in place of what is on: a bound on several states. */
  readonly given?: GivenLight;
}

/** Channels that light whatever is on. */
export interface GivenLight {
  /** Equal for the same channels. */
  readonly key: string;
  readonly drives: readonly Drive[];
  /** It bounds what several states light: a rule may then take a bound for a figure that is dear to find. */
  readonly isBound: boolean;
}

/** A state with what is not said at rest: nothing on, everything shut, by day. */
export const stateWith = (values: Partial<State>): State => ({ on: [], open: [], ambient: 'day', ...values });

/** What is looked at first: warning in earnest, everything shut, by day. */
export function defaultState(build: Build): State {
  const stages = stagesOf(build);
  const stage = stages.find(({ mode }) => mode === 2) ?? stages.at(-1);
  return stateWith({ on: stage === undefined ? [] : [stage.id] });
}

/** The pose as a key, whatever order its stops are named in. */
export const poseKey = (open: readonly string[]): string => setKey(open);

const setKey = (ids: readonly string[]): string =>
  ids.length < 2 ? (ids[0] ?? '') : ids.toSorted().join('+');

/** What is on as a key, in whatever order it is named. */
export const onsKey = (on: readonly ActiveFunction[]): string => setKey(on);

/** The state as a key: equal for equal states. */
export const stateKey = ({ on, open, ambient, given }: State): string =>
  `${onsKey(on)}|${poseKey(open)}|${ambient}${given === undefined ? '' : `|${given.key}`}`;

export const sameOpen = (a: readonly string[], b: readonly string[]): boolean => poseKey(a) === poseKey(b);

export const sameState = (a: State, b: State): boolean => stateKey(a) === stateKey(b);

/** Everything shut, and each stop of each moving part by itself. */
export const bodyPoses = (vehicle: Vehicle): readonly (readonly string[])[] => [
  [],
  ...stopsOf(vehicle).map((stop) => [stop.id]),
];

/** The poses that are checked: those of the body, and each aim and height of each lamp by itself. */
export const posesOf = (build: Build): readonly (readonly string[])[] => [
  ...bodyPoses(vehicleOf(build.vehicle)),
  ...lampMoves(build).flatMap(({ stops }) => stops.map(({ stop }) => [stop])),
];

/** What rule packs call the warning: the mode of the strongest stage or warning that is on and has one; 0 with none. */
export function modeOf(build: Build, on: readonly ActiveFunction[]): number {
  if (on.length === 0) return 0;
  const ids = new Set(on.map((key) => readOn(key).id));
  return build.controls.functions.find((fn) => hasMode(fn) && ids.has(fn.id))?.mode ?? 0;
}

/** What says the mode, the strongest first: while one of its ways of being on is on, all after it say nothing. */
export const modeSteps = (
  build: Build,
): { readonly ons: readonly ActiveFunction[]; readonly mode: number }[] =>
  build.controls.functions.flatMap((fn) => (hasMode(fn) ? [{ ons: onsOf(fn), mode: fn.mode ?? 0 }] : []));

/**
 * Only stages and other warning count as a mode; light to see by has none, whatever it is marked with. What takes light
 * away counts where it says that no warning is on.
 */
const hasMode = ({ kind, mode }: ControlFunction): boolean =>
  mode !== null && (kind === 'stage' || kind === 'warning' || (kind === 'cut' && mode === 0));

/** The functions that rules are asked about, each by itself: those that have a mode, in order of urgency. */
export const checkedFunctionSets = (build: Build): ActiveFunction[] =>
  functionsInOrder(build).flatMap((fn) => (hasMode(fn) && fn.kind !== 'cut' ? onsOf(fn) : []));

/** Every state that is checked: each of these functions in each pose in each light, the plainest of each first. */
export function statesOf(build: Build): State[] {
  const poses = posesOf(build);
  return checkedFunctionSets(build).flatMap((on) =>
    AMBIENTS.flatMap((ambient) => poses.map((open) => ({ on: [on], open, ambient }))),
  );
}

/** The state that a stage or another function makes by itself, with what else is said of it. */
export function stateOf(build: Build, on: ActiveFunction, values: Partial<State> = {}): State {
  functionAt(build, readOn(on).id);
  return stateWith({ ...values, on: [on] });
}

/** The pose in words: "everything shut", "hatch open", "rear left door pinned at 180°", "mast raised". */
export function openText(build: Pick<Build, 'vehicle' | 'placements'>, open: readonly string[]): string {
  const set = new Set(open);
  const parts = vehicleOf(build.vehicle).parts.flatMap((part) => {
    const stop = stopOf(part, set);
    return stop === null ? [] : [`${part.name.toLowerCase()} ${stop.name}`];
  });
  const lamps = lampMoves(build).flatMap(({ name, stops }) =>
    stops.filter(({ stop }) => set.has(stop)).map((stop) => `${name} ${stop.name}`),
  );
  const texts = [...parts, ...lamps];
  if (texts.length === 0) return 'everything closed';
  return texts.every((t) => t.endsWith(' open'))
    ? `${texts.map((t) => t.slice(0, -5)).join(' and ')} open`
    : texts.join(' and ');
}
