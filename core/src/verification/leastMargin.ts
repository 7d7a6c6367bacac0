import type { Asked } from './asked.ts';
import type { Bounds } from './bounds.ts';
import type { Diagram } from './diagrams.ts';
import type { StateIssues } from './memory.ts';
import type { Known } from './ruleTrouble.ts';
import type { Lot } from './regarded.ts';
import type { Region } from './regions.ts';
import type { RepresentativeState } from './representative.ts';
import { nodeOf, parted, worstIn, type Heading, type Light, type Node } from './search.ts';
import type { VerificationSubject } from './subject.ts';

/** The worst figure is looked for by so many judgements at most; verdicts come first. */
const MOST_JUDGED = 200;

/** States of one mode in a region. */
interface Moded {
  readonly region: Region;
  readonly mode: number;
  readonly states: Diagram;
}

/** Output states of which it is known that there is no less room than a bound. */
interface Open extends Moded {
  readonly node: Node;
  readonly bound: number;
}

/** The least room that was met, where, and what there may be less than that. */
interface Least {
  readonly met: number;
  readonly at: (Moded & { readonly when: Diagram }) | null;
  /** No state has less; equal to what was met where all was looked at. */
  readonly bound: number;
}

/** Where of all output states a rule has least room, best first, within a budget. */
export class LeastMargin {
  readonly #subject: VerificationSubject;
  readonly #asked: Asked;
  readonly #bounds: Bounds;
  readonly #over: {
    readonly regions: readonly Region[];
    readonly lots: readonly Lot[];
    readonly heading: Heading;
    readonly known: Known;
  };
  readonly #until: number;

  constructor(
    subject: VerificationSubject,
    asked: Asked,
    bounds: Bounds,
    over: {
      readonly regions: readonly Region[];
      readonly lots: readonly Lot[];
      readonly heading: Heading;
      readonly known: Known;
    },
  ) {
    this.#subject = subject;
    this.#asked = asked;
    this.#bounds = bounds;
    this.#over = over;
    this.#until = bounds.count + MOST_JUDGED;
  }

  /**
   * The least room of all that is judged, but for what is told of a function by itself.
   * @param holds - nothing was found to be wrong
   */
  *room(holds: boolean): Generator<undefined, { readonly margin: number | null; readonly isBound: boolean }> {
    const { met, bound } = yield* this.#least(null, Infinity);
    // What holds has room, whatever a bound leaves open.
    const sure = holds ? Math.max(0, bound) : bound;
    if (Number.isFinite(sure)) return { margin: sure, isBound: sure < met };
    return { margin: Number.isFinite(met) ? met : null, isBound: false };
  }

  /** The state nearest to rest of those that were found worst in one trouble; null where none has less room than so much. */
  *worstOf(about: string, room: number): Generator<undefined, RepresentativeState | null> {
    const { at } = yield* this.#least(about, room);
    if (at === null) return null;
    const { diagrams, program } = this.#subject;
    return this.#subject.nearest(diagrams.and(at.states, program.statesWhere(at.when)));
  }

  /** @param about - of one trouble; null for all */
  *#least(about: string | null, room: number): Generator<undefined, Least> {
    const { more } = this.#asked;
    const { regions, heading } = this.#over;
    const { diagrams: d, program } = this.#subject;
    let [met, at]: [number, Least['at']] = [room, null];
    const queue: Open[] = [];
    const put = (of: Moded, node: Node): void => {
      const bound = this.#isTold(node) ? this.#marginOf(of, worstIn(node, heading), about) : -Infinity;
      if (bound >= met) return;
      if (node.any === node.every) {
        [met, at] = [bound, { ...of, when: node.when }];
        return;
      }
      const place = queue.findIndex((other) => other.bound < bound);
      queue.splice(place < 0 ? queue.length : place, 0, { ...of, node, bound });
    };
    if (more === null) return { met: Infinity, at: null, bound: Infinity };
    for (const region of regions)
      for (const { mode, states } of region.modes) {
        put({ region, mode, states }, nodeOf(d, region.cells, program.outputStates(states, region.heeds)));
        if (this.#bounds.isPauseDue()) yield;
      }
    for (let one = queue.pop(); one !== undefined; one = queue.pop()) {
      if (one.bound >= met) break;
      if (this.#bounds.count > this.#until) return { met, at, bound: one.bound };
      for (const part of parted(d, one.node, 0n, heading) ?? []) put(one, part);
      if (this.#bounds.isPauseDue()) yield;
    }
    return { met, at, bound: met };
  }

  /** Whether each lot lights in all of a node or in none of it: what may be empty is not judged by what is in all. */
  #isTold({ every, any }: Node): boolean {
    return (
      this.#asked.lots === null ||
      this.#over.lots.every(({ channels }) => (every & channels) !== 0n || (any & channels) === 0n)
    );
  }

  #marginOf({ region, mode }: Moded, light: Light, about: string | null): number {
    const judged = this.#bounds.look(region, light);
    return about === null
      ? this.#overall(judged, mode, light.isBound)
      : Math.min(Infinity, ...judged.troubles.flatMap((one) => (one.about === about ? [one.margin] : [])));
  }

  /** @param isBound - of several states: what is known of a function in some of them need not be in all */
  #overall({ margin, troubles }: StateIssues, mode: number, isBound: boolean): number {
    const told = isBound ? [] : troubles.filter((one) => this.#over.known(this.#asked, one.about, mode));
    const left = troubles.filter((one) => !told.includes(one)).map((one) => one.margin);
    return Math.min(told.length === 0 ? (margin ?? Infinity) : Infinity, ...left);
  }
}
