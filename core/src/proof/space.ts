import type { Machine } from './machine.ts';
import { Numbering } from './numbering.ts';
import type { Reach, ReachedPart } from './reach.ts';
import { Walker } from './walker.ts';

/** States of several parts together are not walked beyond so many. */
const MOST_STATES = 160_000;

/** What an event costs whoever wants to get somewhere by the controls; null for one that does not count. */
export type Cost = (byOperator: boolean, isTimer: boolean) => 0 | 1 | null;

/** By operators alone; timers end by themselves. */
export const byOperator: Cost = (operator, timer) => (operator ? 1 : timer ? 0 : null);
/** Whatever the vehicle does besides is free. */
export const withVehicle: Cost = (operator) => (operator ? 1 : 0);

interface Edge {
  readonly from: number;
  readonly to: number;
  readonly cost: 0 | 1;
}

/** The states of some parts of a programme together, as places of each; the other parts stand at rest. */
export class Space {
  readonly #reach: Reach;
  readonly #parts: readonly number[];
  readonly #weights: readonly number[];
  readonly size: number;
  readonly #actions: {
    readonly goals: Uint8Array;
    readonly cost: Cost;
    readonly way: 'to' | 'from';
    readonly least: Int32Array;
  }[] = [];

  /** @returns null when there are too many states to walk */
  static of(reach: Reach, parts: readonly number[]): Space | null {
    const size = parts.reduce((product, at) => product * (reach.parts[at]?.count ?? 1), 1);
    return size > MOST_STATES || !reach.whole ? null : new Space(reach, parts, size);
  }

  private constructor(reach: Reach, parts: readonly number[], size: number) {
    this.#reach = reach;
    this.#parts = parts;
    this.size = size;
    let weight = 1;
    this.#weights = parts.map((at) => {
      const mine = weight;
      weight *= reach.parts[at]?.count ?? 1;
      return mine;
    });
  }

  /** Where every part stands in a state: the places of a moment. */
  placesOf(state: number): number[] {
    const places = this.#reach.parts.map(() => 0);
    let rest = state;
    for (const at of this.#parts) {
      const count = this.#reach.parts[at]?.count ?? 1;
      places[at] = rest % count;
      rest = Math.floor(rest / count);
    }
    return places;
  }

  /**
   * Which states hold: judged by what is on, and by the values of inputs.
   * @param ranks - the functions that are asked about; the others are not judged
   */
  where(ranks: readonly number[], holds: (values: Uint8Array, on: Uint8Array) => boolean): Uint8Array {
    const { machine, parts } = this.#reach;
    const cones = new Set(ranks.flatMap((rank) => [...machine.wired.dependsOn(rank).functions]));
    const judged = machine.wired.inOrder.filter((rank) => cones.has(rank));
    const numberings = parts.map(({ part }) => new Numbering(part));
    const out = new Uint8Array(this.size);
    const r = machine.blank();
    for (const [i, part] of parts.entries()) numberings[i]?.into(part.states[0] ?? 0, r);
    for (let state = 0; state < this.size; state++) {
      let rest = state;
      for (const at of this.#parts) {
        const part = parts[at];
        if (part === undefined) continue;
        numberings[at]?.into(part.states[rest % part.count] ?? 0, r);
        rest = Math.floor(rest / part.count);
      }
      machine.judge(judged, r);
      if (holds(r.values, r.on)) out[state] = 1;
    }
    return out;
  }

  /**
   * The fewest actions from each state to a goal, or from the goals to each state; -1 where there is no way.
   * @param way - 'to' the goals, or 'from' them
   */
  actions(goals: Uint8Array, cost: Cost, way: 'to' | 'from'): Int32Array {
    const known = this.#actions.find((a) => a.cost === cost && a.way === way && equal(a.goals, goals));
    if (known !== undefined) return known.least;
    const least = this.#walk(goals, cost, way);
    this.#actions.push({ goals, cost, way, least });
    return least;
  }

  #walk(goals: Uint8Array, cost: Cost, way: 'to' | 'from'): Int32Array {
    const least = new Int32Array(this.size).fill(-1);
    const moves = this.#parts.map((at) => this.#movesOf(at, cost, way));
    // Two ends of one line: what costs nothing comes before what costs an action.
    let now: number[] = [];
    for (let state = 0; state < this.size; state++)
      if (goals[state] === 1) {
        least[state] = 0;
        now.push(state);
      }
    for (let actions = 0; now.length > 0; actions++) {
      const next: number[] = [];
      // It grows while it is walked: what costs nothing is walked in the same round.
      for (const state of now) {
        if ((least[state] ?? -1) !== actions) continue;
        let rest = state;
        for (const [p, at] of this.#parts.entries()) {
          const count = this.#reach.parts[at]?.count ?? 1;
          const place = rest % count;
          rest = Math.floor(rest / count);
          for (const { to, cost: costs } of moves[p]?.[place] ?? []) {
            const there = state + (to - place) * (this.#weights[p] ?? 0);
            const known = least[there] ?? -1;
            const total = actions + costs;
            if (known >= 0 && known <= total) continue;
            least[there] = total;
            (costs === 0 ? now : next).push(there);
          }
        }
      }
      now = next;
    }
    return least;
  }

  /** The moves of a part by where it stands, forward or back. */
  #movesOf(at: number, cost: Cost, way: 'to' | 'from'): readonly (readonly { to: number; cost: 0 | 1 }[])[] {
    const edges = this.#edgesOf(at, cost);
    const out: { to: number; cost: 0 | 1 }[][] = Array.from(
      { length: this.#reach.parts[at]?.count ?? 0 },
      () => [],
    );
    for (const { from, to, cost: costs } of edges)
      if (way === 'from') out[from]?.push({ to, cost: costs });
      else out[to]?.push({ to: from, cost: costs });
    return out;
  }

  /** Of some states those that are nearest to rest. */
  nearest(among: Uint8Array): Uint8Array {
    const depths = new Int32Array(this.size).fill(-1);
    let least = Infinity;
    for (let state = 0; state < this.size; state++) {
      if (among[state] !== 1) continue;
      let rest = state;
      let depth = 0;
      for (const at of this.#parts) {
        const part = this.#reach.parts[at];
        if (part === undefined) continue;
        depth += part.depths[rest % part.count] ?? 0;
        rest = Math.floor(rest / part.count);
      }
      depths[state] = depth;
      least = Math.min(least, depth);
    }
    return Uint8Array.from(depths, (depth) => (depth === least ? 1 : 0));
  }

  /** The state after the first move that is as asked, among those that count; null when there is none. */
  firstMove(
    isIt: (from: number, to: number) => boolean,
    counts: (byOperator: boolean) => boolean,
  ): number | null {
    const moves = this.#parts.map((at) =>
      this.#movesOf(at, (operator) => (counts(operator) ? 0 : null), 'from'),
    );
    for (let state = 0; state < this.size; state++) {
      let rest = state;
      for (const [p, at] of this.#parts.entries()) {
        const count = this.#reach.parts[at]?.count ?? 1;
        const place = rest % count;
        rest = Math.floor(rest / count);
        for (const { to } of moves[p]?.[place] ?? []) {
          const there = state + (to - place) * (this.#weights[p] ?? 0);
          if (isIt(state, there)) return there;
        }
      }
    }
    return null;
  }

  /** Every move of a part that counts: worked out once for all spaces of it. */
  #edgesOf(at: number, cost: Cost): readonly Edge[] {
    const { machine, parts } = this.#reach;
    const reached = parts[at];
    if (reached === undefined) return [];
    const known = edges.get(reached) ?? new Map<Cost, readonly Edge[]>();
    edges.set(reached, known);
    const made = known.get(cost) ?? edgesOf(machine, reached, cost);
    known.set(cost, made);
    return made;
  }
}

const edges = new WeakMap<ReachedPart, Map<Cost, readonly Edge[]>>();

function edgesOf(machine: Machine, reached: ReachedPart, cost: Cost): Edge[] {
  const { part } = reached;
  const walker = new Walker(machine, part);
  const placeOf = new Map<number, number>();
  for (let place = 0; place < reached.count; place++) placeOf.set(reached.states[place] ?? 0, place);
  const found: Edge[] = [];
  const counted = part.events.flatMap((event, at) => {
    const costs = cost(event.byOperator, event.ends !== null);
    return costs === null ? [] : [{ at, costs }];
  });
  for (let from = 0; from < reached.count; from++) {
    walker.goTo(reached.states[from] ?? 0);
    for (const { at, costs } of counted) {
      const to = placeOf.get(walker.after(at));
      if (to !== undefined && to !== from) found.push({ from, to, cost: costs });
    }
  }
  return found;
}

/** The parts that some functions depend on. */
export function partsOf({ machine, parts }: Reach, ranks: Iterable<number>): number[] {
  const inputs = new Set<number>();
  const functions = new Set<number>();
  for (const rank of ranks) {
    const cone = machine.wired.dependsOn(rank);
    for (const at of cone.inputs) inputs.add(at);
    for (const fn of cone.functions) functions.add(fn);
  }
  return parts.flatMap(({ part }, at) =>
    part.variables.some((v) => (v.kind === 'input' ? inputs.has(v.at) : functions.has(v.at))) ? [at] : [],
  );
}

function equal(a: Uint8Array, b: Uint8Array): boolean {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}
