import { EVERY, NONE, type Diagram } from './diagrams.ts';
import type { MachineEvent } from './parts.ts';
import type { ReachableSet } from './reachable.ts';
import { preImage, type Relation } from './relations.ts';

/** What an event costs whoever wants to get somewhere by the controls; null for one that does not count. */
export type Cost = (event: Pick<MachineEvent, 'event' | 'byOperator' | 'ends'>) => 0 | 1 | null;

/** By operators alone, who leave the key on: nobody stops the engine on the road to end a light. Timers end by themselves. */
export const byOperator: Cost = (one) =>
  one.ends !== null ? 0 : one.byOperator && !turnsKey(one.event) ? 1 : null;
/** Whatever the vehicle does besides is free. */
export const withVehicle: Cost = (one) => (one.byOperator ? 1 : 0);
/** What the vehicle and timers do, without an operator. */
export const isByItself = ({ byOperator: isOperator }: Pick<MachineEvent, 'byOperator'>): boolean =>
  !isOperator;

const turnsKey = (event: MachineEvent['event']): boolean =>
  event.kind === 'arrives' && event.input === 'ignition' && event.value !== 'on';

/**
 * The states from which a goal is reached, of those that can be reached themselves: those first that need the fewest
 * actions, 0, 1, and so on until there are no more.
 */
export function* towards(reached: ReachableSet, goal: Diagram, cost: Cost): Generator<Diagram> {
  const d = reached.program.diagrams;
  // Parts that the goal does not ask about have no say in it.
  const parts = reached.partsOf(goal);
  const relations = parts.flatMap((part) => part.relations);
  const free = relations.filter(({ event }) => cost(event) === 0);
  const paid = relations.filter(({ event }) => cost(event) === 1);
  // What comes of a reached state is reached: where all are known, the others need not be looked at.
  const among = reached.within === null ? d.all(parts.map(({ states }) => states)) : EVERY;
  const before = (by: readonly Relation[], states: Diagram): Diagram =>
    d.any(by.map((relation) => d.and(preImage(reached.program, relation, states), among)));
  let met = NONE;
  let fresh = d.and(goal, among);
  while (fresh !== NONE) {
    let layer = fresh;
    for (let next = fresh; next !== NONE;) {
      next = d.without(before(free, next), d.or(met, layer));
      layer = d.or(layer, next);
    }
    met = d.or(met, layer);
    yield layer;
    fresh = d.without(before(paid, layer), met);
  }
}
