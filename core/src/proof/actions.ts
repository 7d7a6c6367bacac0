import { NONE, type Diagram } from './diagrams.ts';
import type { MachineEvent } from './parts.ts';
import type { ReachableSet, ReachedPart } from './reachable.ts';
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
 * The states from which a goal is reached, those first that need the fewest actions: 0, 1, and so on until there are no more.
 * States are looked for among all that a program has, whether they can be reached or not.
 */
export function* towards(reached: ReachableSet, goal: Diagram, cost: Cost): Generator<Diagram> {
  const d = reached.program.diagrams;
  const relations = reached.partsOf(goal).flatMap((part: ReachedPart) => part.relations);
  const free = relations.filter(({ event }) => cost(event) === 0);
  const paid = relations.filter(({ event }) => cost(event) === 1);
  const before = (by: readonly Relation[], states: Diagram): Diagram =>
    d.any(by.map((relation) => preImage(reached.program, relation, states)));
  let met = NONE;
  let fresh = goal;
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
