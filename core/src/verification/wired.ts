import { eventName, type ControlProgram } from '../controls/program.ts';
import { leavesOf, type Condition, type InputEvent } from '../design/condition.ts';
import type { ControlFunction } from '../design/functions.ts';
import { conditionReads } from '../design/programFaults.ts';

/** What an event does to a function that listens: bits, as several may fall together. */
export const CLEARS = 1;
export const SETS = 2;
export const STEPS = 4;

export interface EventSubscription {
  readonly fn: number;
  readonly does: number;
}

/** When an input comes to some values, another takes one: by their places. */
export interface Following {
  readonly input: number;
  readonly at: ReadonlySet<number>;
  readonly follower: number;
  readonly takes: number;
  readonly heard: readonly EventSubscription[];
}

/** Functions and inputs that something depends on, by their places. */
export interface Dependencies {
  readonly functions: ReadonlySet<number>;
  readonly inputs: ReadonlySet<number>;
}

/** A programme by places, functions by their rank and inputs by their place: what asks about what, and who hears what. */
export class CompiledProgram {
  readonly programme: ControlProgram;
  /** Each after those that it asks about. */
  readonly inOrder: readonly number[];
  readonly follows: readonly Following[];
  readonly heard: ReadonlyMap<string, readonly EventSubscription[]>;
  readonly #rank: ReadonlyMap<string, number>;
  readonly #place: ReadonlyMap<string, number>;

  constructor(programme: ControlProgram) {
    const { inputs, ranked, controls } = programme;
    this.programme = programme;
    this.#rank = new Map(ranked.map((fn, rank) => [fn.id, rank]));
    this.#place = new Map(inputs.map((input, at) => [input.id, at]));
    this.inOrder = programme.inOrder.flatMap((fn) => this.#rank.get(fn.id) ?? []);
    this.heard = listeners(programme);
    this.follows = controls.follows.flatMap(({ input, values, follower, takes }) => {
      const leader = this.#place.get(input);
      const led = this.#place.get(follower);
      if (leader === undefined || led === undefined) return [];
      const at = new Set(values.map((value) => inputs[leader]?.values.indexOf(value) ?? -1));
      const to = inputs[led]?.values.indexOf(takes) ?? -1;
      // A key that is taken down counts as its short press, too.
      const pressed = takes === 'down' && !programme.isDeliberate(follower);
      const heard = [
        ...this.hear(`arrives ${follower} ${takes}`),
        ...(pressed ? this.hear(`press ${follower} short`) : []),
      ];
      return [{ input: leader, at, follower: led, takes: to, heard }];
    });
  }

  placeOf(inputId: string): number | undefined {
    return this.#place.get(inputId);
  }

  rankOf(functionId: string): number | undefined {
    return this.#rank.get(functionId);
  }

  /** Who hears an event of that name. */
  hear(name: string): readonly EventSubscription[] {
    return this.heard.get(name) ?? [];
  }

  /** Functions that a function asks about, and those that these ask about, itself among them. */
  #cone(rank: number, into: Set<number>): void {
    const fn = this.programme.ranked[rank];
    if (fn === undefined || into.has(rank)) return;
    into.add(rank);
    for (const id of conditionReads(fn)) {
      const asked = this.#rank.get(id);
      if (asked !== undefined) this.#cone(asked, into);
    }
  }

  /** The places of the inputs that a function asks about itself, its master switch among them. */
  #inputsOf(fn: ControlFunction): number[] {
    const { controls } = this.programme;
    const conditions = [
      fn.when.way === 'while' ? fn.when.condition : null,
      fn.enabledBy,
      fn.withoutMaster ? null : controls.enabledBy,
    ];
    return conditions.flatMap((c) => (c === null ? [] : this.placesIn(c)));
  }

  /** The places of the inputs that a condition asks about. */
  placesIn(c: Condition): number[] {
    return [...leavesOf(c)].flatMap((leaf) =>
      leaf.kind === 'is' ? (this.#place.get(leaf.input) ?? []) : [],
    );
  }

  /** Everything that a function depends on: functions and inputs, through those that it asks about. */
  dependsOn(rank: number): Dependencies {
    return this.#through([rank], []);
  }

  /** Everything that some functions depend on. */
  through(ranks: readonly number[]): Dependencies {
    return this.#through(ranks, []);
  }

  #through(ranks: readonly number[], places: readonly number[]): Dependencies {
    const functions = new Set<number>();
    for (const rank of ranks) this.#cone(rank, functions);
    const { ranked } = this.programme;
    const inputs = new Set(places);
    for (const asked of functions) {
      const fn = ranked[asked];
      if (fn !== undefined) for (const at of this.#inputsOf(fn)) inputs.add(at);
    }
    return { functions, inputs };
  }

  /** The input that moves as an event of that name happens. */
  movedBy(name: string): number | undefined {
    const [kind, id = '', press] = name.split(' ');
    if (kind === 'arrives') return this.#place.get(id);
    if (kind === 'press' && press === 'short' && !this.programme.isDeliberate(id)) return this.#place.get(id);
    return undefined;
  }
}

/** Who hears an event, by its name. */
function listeners(programme: ControlProgram): ReadonlyMap<string, readonly EventSubscription[]> {
  const heard = new Map<string, EventSubscription[]>();
  const add = (events: readonly InputEvent[], fn: number, does: number): void => {
    for (const event of events) {
      const name = eventName(programme, event);
      heard.set(name, [...(heard.get(name) ?? []), { fn, does }]);
    }
  };
  for (const [rank, { when }] of programme.ranked.entries()) {
    if (when.way !== 'latched' && when.way !== 'cycle') continue;
    add(when.clears, rank, CLEARS);
    add(when.sets, rank, SETS);
    add(when.way === 'latched' ? when.toggles : when.steps, rank, STEPS);
  }
  return heard;
}
