import type { Build } from '../design/schema.ts';
import { stagesOf, type StageIndex } from '../design/timing.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { stopOf, stopsOf, vehicleOf } from '../vehicle/vehicle.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';

/** One value for every input: the stage asked for, the stops at which moving parts stand, the light around. */
export interface State {
  readonly stage: StageIndex;
  /** Stops by id, in any order; a part with none named is shut. */
  readonly open: readonly string[];
  readonly ambient: Ambient;
}

/** A state with what is not said at rest: Off, everything shut, by day. */
export const stateWith = (values: Partial<State>): State => ({
  stage: 0,
  open: [],
  ambient: 'day',
  ...values,
});

/** What is looked at first: warning in earnest, everything shut, by day. */
export const FIRST_LOOK: State = stateWith({ stage: 2 });

/** The pose as a key, whatever order its stops are named in. */
export const poseKey = (open: readonly string[]): string =>
  open.length < 2 ? (open[0] ?? '') : open.toSorted().join('+');

/** The state as a key: equal for equal states. */
export const stateKey = ({ stage, open, ambient }: State): string => `${stage}|${poseKey(open)}|${ambient}`;

export const sameOpen = (a: readonly string[], b: readonly string[]): boolean => poseKey(a) === poseKey(b);

export const sameState = (a: State, b: State): boolean => stateKey(a) === stateKey(b);

/** The poses that are checked: everything shut, and each stop of each moving part by itself. */
export const posesOf = (vehicle: Vehicle): readonly (readonly string[])[] => [
  [],
  ...stopsOf(vehicle).map((stop) => [stop.id]),
];

/** Every state that is checked: each stage in each pose in each light, the plainest of each first. */
export function statesOf(build: Build): State[] {
  const poses = posesOf(vehicleOf(build.vehicle));
  return stagesOf(build).flatMap((stage) =>
    AMBIENTS.flatMap((ambient) => poses.map((open) => ({ stage, open, ambient }))),
  );
}

/** The pose in words: "everything shut", "hatch open", "rear left door pinned at 180°". */
export function openText(vehicle: Vehicle, open: readonly string[]): string {
  const set = new Set(open);
  const texts = vehicle.parts.flatMap((part) => {
    const stop = stopOf(part, set);
    return stop === null ? [] : [`${part.name.toLowerCase()} ${stop.name}`];
  });
  if (texts.length === 0) return 'everything shut';
  return texts.every((t) => t.endsWith(' open'))
    ? `${texts.map((t) => t.slice(0, -5)).join(' and ')} open`
    : texts.join(' and ');
}
