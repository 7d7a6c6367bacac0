import type { Machine } from './machine.ts';
import type { MachineEvent } from './parts.ts';
import type { ReachedPart } from './reach.ts';
import { Walker } from './walker.ts';

/** What an event costs whoever wants to get somewhere by the controls; null for one that does not count. */
export type Cost = (event: Pick<MachineEvent, 'event' | 'byOperator' | 'ends'>) => 0 | 1 | null;

/** By operators alone, who leave the key on: nobody stops the engine on the road to end a light. Timers end by themselves. */
export const byOperator: Cost = (one) =>
  one.ends !== null ? 0 : one.byOperator && !turnsKey(one.event) ? 1 : null;
/** Whatever the vehicle does besides is free. */
export const withVehicle: Cost = (one) => (one.byOperator ? 1 : 0);
/** What the vehicle and timers do, without an operator. */
export const byItself: Cost = (one) => (one.byOperator ? null : 0);

const turnsKey = (event: MachineEvent['event']): boolean =>
  event.kind === 'arrives' && event.input === 'ignition' && event.value !== 'on';

/** To the places it leads to, or back to those it comes from. */
export type Way = 'from' | 'to';

/** Moves of a part by where it stands: those of place p are numbered from start[p] up to start[p + 1]. */
export interface Moves {
  readonly start: Int32Array;
  readonly there: Int32Array;
  readonly costs: Uint8Array;
}

/** Every move of a part from one place to another, by what happens. */
interface Edges {
  readonly from: readonly number[];
  readonly to: readonly number[];
  /** The place among the part's events of what happens. */
  readonly events: readonly number[];
}

/** A part never changes, so its moves are worked out once for all who ask. */
const known = new WeakMap<
  ReachedPart,
  { readonly edges: Edges; readonly moves: Map<Cost, Record<Way, Moves>> }
>();

/** The moves of a part that count, as one who wants to get somewhere pays for them. */
export function movesOf(machine: Machine, part: ReachedPart, cost: Cost, way: Way): Moves {
  const ofPart = known.get(part) ?? {
    edges: edgesOf(machine, part),
    moves: new Map<Cost, Record<Way, Moves>>(),
  };
  known.set(part, ofPart);
  const made = ofPart.moves.get(cost) ?? sorted(part, ofPart.edges, cost);
  ofPart.moves.set(cost, made);
  return made[way];
}

function edgesOf(machine: Machine, { part, states, count }: ReachedPart): Edges {
  const walker = new Walker(machine, part);
  const placeOf = new Map<number, number>();
  for (let place = 0; place < count; place++) placeOf.set(states[place] ?? 0, place);
  const [from, to, events]: [number[], number[], number[]] = [[], [], []];
  for (let first = 0; first < count;) {
    const taken = walker.take(states, first, count - first);
    for (let s = 0; s < taken; s++)
      for (let event = 0; event < part.events.length; event++) {
        const place = first + s;
        const there = placeOf.get(walker.after(s, event));
        if (there === undefined || there === place) continue;
        from.push(place);
        to.push(there);
        events.push(event);
      }
    first += taken;
  }
  return { from, to, events };
}

function sorted({ part, count }: ReachedPart, { from, to, events }: Edges, cost: Cost): Record<Way, Moves> {
  const costs = part.events.map(cost);
  const counted: number[] = [];
  for (let edge = 0; edge < events.length; edge++)
    if ((costs[events[edge] ?? 0] ?? null) !== null) counted.push(edge);
  const by = (here: readonly number[], there: readonly number[]): Moves => {
    const start = new Int32Array(count + 1);
    for (const edge of counted) start[(here[edge] ?? 0) + 1] = (start[(here[edge] ?? 0) + 1] ?? 0) + 1;
    for (let place = 0; place < count; place++)
      start[place + 1] = (start[place + 1] ?? 0) + (start[place] ?? 0);
    const next = start.slice();
    const moves = { start, there: new Int32Array(counted.length), costs: new Uint8Array(counted.length) };
    for (const edge of counted) {
      const place = here[edge] ?? 0;
      const at = next[place] ?? 0;
      next[place] = at + 1;
      moves.there[at] = there[edge] ?? 0;
      moves.costs[at] = costs[events[edge] ?? 0] ?? 0;
    }
    return moves;
  };
  return { from: by(from, to), to: by(to, from) };
}
