import { movesOf, type Cost, type Moves, type Way } from './moves.ts';
import { Numbering } from './numbering.ts';
import type { Reach } from './reach.ts';

/** States of several parts together are not walked beyond so many. */
export const MOST_TOGETHER = 160_000;

/** The states of some parts of a programme together, as places of each; the other parts stand at rest. */
export class Space {
  readonly #reach: Reach;
  readonly #parts: readonly number[];
  readonly #weights: readonly number[];
  readonly size: number;
  readonly #on = new Map<number, Uint8Array>();
  readonly #actions: {
    readonly goals: Uint8Array;
    readonly cost: Cost;
    readonly way: Way;
    readonly least: Int32Array;
  }[] = [];

  /** @returns null when there are too many states to walk */
  static of(reach: Reach, parts: readonly number[]): Space | null {
    const size = parts.reduce((product, at) => product * (reach.parts[at]?.count ?? 1), 1);
    return size > MOST_TOGETHER || !reach.whole ? null : new Space(reach, parts, size);
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
   * Which states hold: judged by what is on, by the values of inputs, by what is remembered and by phases.
   * @param ranks - the functions that are asked about; the others are not judged
   */
  where(
    ranks: readonly number[],
    holds: (values: Uint8Array, on: Uint8Array, memory: Uint8Array, phases: Uint8Array) => boolean,
  ): Uint8Array {
    const { machine, parts } = this.#reach;
    const cones = new Set(ranks.flatMap((rank) => [...machine.wired.dependsOn(rank).functions]));
    const judged = machine.wired.inOrder.filter((rank) => cones.has(rank));
    const numberings = parts.map(({ part }) => new Numbering(part));
    const out = new Uint8Array(this.size);
    const r = machine.blank();
    for (const [i, part] of parts.entries()) numberings[i]?.into(part.states[0] ?? 0, r);
    const stands = parts.map(() => 0);
    for (let state = 0; state < this.size; state++) {
      let rest = state;
      for (const at of this.#parts) {
        const part = parts[at];
        if (part === undefined) continue;
        const place = rest % part.count;
        rest = Math.floor(rest / part.count);
        if (stands[at] === place) continue;
        stands[at] = place;
        numberings[at]?.into(part.states[place] ?? 0, r);
      }
      machine.judge(judged, r);
      if (holds(r.values, r.on, r.memory, r.phases)) out[state] = 1;
    }
    return out;
  }

  /** The states in which a function is on. */
  isOn(rank: number): Uint8Array {
    const known = this.#on.get(rank) ?? this.where([rank], (_, on) => on[rank] === 1);
    this.#on.set(rank, known);
    return known;
  }

  /**
   * The fewest actions from each state to a goal, or from the goals to each state; -1 where there is no way.
   */
  actions(goals: Uint8Array, cost: Cost, way: Way): Int32Array {
    const known = this.#actions.find((a) => a.cost === cost && a.way === way && equal(a.goals, goals));
    if (known !== undefined) return known.least;
    const least = this.#walk(goals, cost, way);
    this.#actions.push({ goals, cost, way, least });
    return least;
  }

  #walk(goals: Uint8Array, cost: Cost, way: Way): Int32Array {
    const least = new Int32Array(this.size).fill(-1);
    const moves = this.#movesOf(cost, way);
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
          const mine = moves[p];
          if (mine === undefined) continue;
          const weight = this.#weights[p] ?? 0;
          const end = mine.start[place + 1] ?? 0;
          for (let m = mine.start[place] ?? 0; m < end; m++) {
            const there = state + ((mine.there[m] ?? 0) - place) * weight;
            const costs = mine.costs[m] ?? 0;
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
  firstMove(isIt: (from: number, to: number) => boolean, cost: Cost): number | null {
    const moves = this.#movesOf(cost, 'from');
    for (let state = 0; state < this.size; state++) {
      let rest = state;
      for (const [p, at] of this.#parts.entries()) {
        const count = this.#reach.parts[at]?.count ?? 1;
        const place = rest % count;
        rest = Math.floor(rest / count);
        const mine = moves[p];
        if (mine === undefined) continue;
        const end = mine.start[place + 1] ?? 0;
        for (let m = mine.start[place] ?? 0; m < end; m++) {
          const there = state + ((mine.there[m] ?? 0) - place) * (this.#weights[p] ?? 0);
          if (isIt(state, there)) return there;
        }
      }
    }
    return null;
  }

  #movesOf(cost: Cost, way: Way): Moves[] {
    const { machine, parts } = this.#reach;
    return this.#parts.flatMap((at) => {
      const part = parts[at];
      return part === undefined ? [] : [movesOf(machine, part, cost, way)];
    });
  }
}

/** The parts that some functions depend on, and those of some inputs besides. */
export function partsOf(
  { machine, parts }: Reach,
  ranks: Iterable<number>,
  besides: readonly number[] = [],
): number[] {
  const inputs = new Set<number>(besides);
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
