import type { Build } from '../design/schema.ts';
import { stageAt } from '../design/timing.ts';
import { channelsOf, type Drive } from '../resolve/channels.ts';
import type { State } from './state.ts';

/** What is driven in the states of a build; a build never changes, so it is worked out once. */
const known = new WeakMap<Build, Map<string, readonly Drive[]>>();

/** The inputs that what is driven depends on. */
export type DrivingState = Pick<State, 'stage' | 'ambient'>;

/**
 * Every channel that is driven in a state, in document order. States in which nothing differs give the same list, so
 * that whoever has judged one need not judge the other.
 *
 * @throws {RangeError} the build has no such stage
 */
export function drivenIn(build: Build, { stage, ambient }: DrivingState): readonly Drive[] {
  const ofBuild = known.get(build) ?? new Map<string, readonly Drive[]>();
  known.set(build, ofBuild);
  const { nightLevel, cues } = stageAt(build, stage);
  const alike = nightLevel === 1 && cues.every((cue) => cue.nightPatternId === null);
  const key = alike ? `${stage}` : `${stage}${ambient}`;
  const driven = ofBuild.get(key) ?? channelsOf(build, stage, ambient);
  ofBuild.set(key, driven);
  return driven;
}
