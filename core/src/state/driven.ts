import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import { showingOf } from '../resolve/showing.ts';
import type { State } from './state.ts';

/** What decides what is driven. */
export type DrivingState = Pick<State, 'on' | 'ambient' | 'given'>;

/**
 * Every channel that is driven in a state, in document order. States in which nothing differs give the same list, so
 * that whoever has judged one need not judge the other.
 *
 * @throws {RangeError} the build has no such function
 */
export const drivenIn = (build: Build, { on, ambient, given }: DrivingState): readonly Drive[] =>
  given?.drives ?? showingOf(build).driven(on, ambient);
