import type { Programme } from '../controls/programme.ts';
import { Machine } from './machine.ts';
import type { Moment } from './momentTable.ts';
import { reach, type Reach } from './reach.ts';
import { MOST_TOGETHER, partsOf, Space } from './space.ts';

/** Where something is so: where each part stands, of all that was walked. */
export interface Place extends Pick<Moment, 'on' | 'places'> {
  /** What was walked; all states of the programme when not said. */
  readonly reach?: Reach;
}

/**
 * All that some functions depend on, walked without the others: whatever those do, these go as they go here, and each
 * state by a way as short.
 */
export interface About {
  readonly reach: Reach;
  readonly space: Space;
  /** Of the functions asked for, in their order: the rank there. */
  readonly ranks: readonly number[];
}

/**
 * What some functions of a programme depend on.
 * @param inputs - places of inputs that are told apart besides
 * @returns null when there are too many states to walk
 */
export function aboutOf(
  whole: Programme,
  ids: readonly string[],
  inputs: readonly number[] = [],
): About | null {
  const programme = whole.about(ids);
  // Beyond what is walked together there is no need to look.
  const small = reach(new Machine(programme), MOST_TOGETHER + 1);
  const ranks = ids.map((id) => programme.ranked.findIndex((fn) => fn.id === id));
  const space = Space.of(small, partsOf(small, ranks, inputs));
  return space === null ? null : { reach: small, space, ranks };
}
