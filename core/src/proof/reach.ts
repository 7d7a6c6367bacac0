import { isTimed, type Programme, type ProgrammeEvent } from '../controls/programme.ts';
import type { Machine, Registers } from './machine.ts';
import type { MachineEvent, Part, Variable } from './parts.ts';

/** A part is not walked farther than this many states; what lies beyond is then not known. */
export const MOST_STATES = 2_000_000;
/** Numbers of states up to this are marked bit by bit; above it, one by one. */
const MOST_MARKED = 2 ** 30;

/** The states of a part that can be reached, in the order in which they were: the shortest ways first. */
export class ReachedPart {
  readonly part: Part;
  /** The number of each reached state. */
  readonly states: Float64Array;
  /** Where the state stands from which each was reached first. */
  readonly parents: Int32Array;
  /** The place of the event that led to it. */
  readonly via: Int32Array;
  /** How many events it takes to get there. */
  readonly depths: Int32Array;
  readonly count: number;
  /** Whether all that can be reached was. */
  readonly whole: boolean;

  constructor(
    part: Part,
    { states, parents, via, depths, count, whole }: Omit<ReachedPart, 'part' | 'wayTo'>,
  ) {
    this.part = part;
    this.states = states;
    this.parents = parents;
    this.via = via;
    this.depths = depths;
    this.count = count;
    this.whole = whole;
  }

  /** The shortest sequence of events to the state at a place. */
  wayTo(place: number): ProgrammeEvent[] {
    const way: ProgrammeEvent[] = [];
    for (let at = place; at > 0; at = this.parents[at] ?? 0) {
      const event: MachineEvent | undefined = this.part.events[this.via[at] ?? 0];
      if (event !== undefined) way.push(event.event);
    }
    return way.reverse();
  }
}

/** Numbers of values of the variables of a part multiplied: what states could be, reachable or not. */
export const rawOf = ({ variables }: Part): bigint =>
  variables.reduce((product, { size }) => product * BigInt(size), 1n);

/** A state of a part as one number: mixed radix over its variables. */
export class Numbering {
  readonly #variables: readonly Variable[];
  /** What one step of each variable adds. */
  readonly weights: readonly number[];

  constructor({ variables }: Part) {
    this.#variables = variables;
    let weight = 1;
    this.weights = variables.map(({ size }) => {
      const mine = weight;
      weight *= size;
      return mine;
    });
  }

  of({ values, memory, phases }: Registers): number {
    let number = 0;
    for (let i = 0; i < this.#variables.length; i++) {
      const variable = this.#variables[i];
      const weight = this.weights[i] ?? 0;
      if (variable === undefined) continue;
      switch (variable.kind) {
        case 'input':
          number += weight * (values[variable.at] ?? 0);
          break;
        case 'memory':
          number += weight * (memory[variable.at] ?? 0);
          break;
        case 'phase':
          number += weight * variable.phases.indexOf(phases[variable.at] ?? 0);
      }
    }
    return number;
  }

  /** Writes a state into the registers of its part; what is on is not judged. */
  into(number: number, { values, memory, phases }: Registers): void {
    let rest = number;
    for (const variable of this.#variables) {
      const value = rest % variable.size;
      rest = Math.floor(rest / variable.size);
      switch (variable.kind) {
        case 'input':
          values[variable.at] = value;
          break;
        case 'memory':
          memory[variable.at] = value;
          break;
        case 'phase':
          phases[variable.at] = variable.phases[value] ?? 0;
      }
    }
  }
}

/** Which numbers were met. */
class Met {
  readonly #bits: Uint32Array | null;
  readonly #set = new Set<number>();

  constructor(size: number) {
    this.#bits = size <= MOST_MARKED ? new Uint32Array(Math.ceil(size / 32)) : null;
  }

  /** Marks a number. @returns whether it is new */
  add(number: number): boolean {
    const bits = this.#bits;
    if (bits === null) {
      if (this.#set.has(number)) return false;
      this.#set.add(number);
      return true;
    }
    const word = number >>> 5;
    const bit = 1 << (number & 31);
    const before = bits[word] ?? 0;
    if ((before & bit) !== 0) return false;
    bits[word] = before | bit;
    return true;
  }
}

/** Lists of numbers that grow. */
class Growing {
  states = new Float64Array(1024);
  parents = new Int32Array(1024);
  via = new Int32Array(1024);
  depths = new Int32Array(1024);
  count = 0;

  push(state: number, parent: number, via: number, depth: number): void {
    if (this.count === this.states.length) {
      const size = 2 * this.count;
      this.states = grown(this.states, new Float64Array(size));
      this.parents = grown(this.parents, new Int32Array(size));
      this.via = grown(this.via, new Int32Array(size));
      this.depths = grown(this.depths, new Int32Array(size));
    }
    this.states[this.count] = state;
    this.parents[this.count] = parent;
    this.via[this.count] = via;
    this.depths[this.count] = depth;
    this.count++;
  }
}

function grown<T extends Float64Array | Int32Array>(from: T, into: T): T {
  into.set(from);
  return into;
}

/** Phases of a function are numbered below this. */
const PHASES = 4;
/** What an event does is kept in tables where each depends on no more combinations of values than this. */
const MOST_ROWS = 2 ** 14;
/** Of a row that was not asked for yet, and of one in which the event does not happen. */
const UNKNOWN = Infinity;
const NEVER = -Infinity;

/** What an event adds to the number of a state by changing some variables: it depends on some variables alone, row by row. */
interface Table {
  /** Places of the variables it depends on, and what one step of each is in the row. */
  readonly at: readonly number[];
  readonly steps: readonly number[];
  /** Places of the variables that it tells the change of. */
  readonly changes: readonly number[];
  /** Whether it tells that the event does not happen. */
  readonly decides: boolean;
  /** Filled as rows are met. */
  readonly rows: Float64Array;
}

/** Walks through the states of a part by their numbers. */
export class Walker {
  readonly #machine: Machine;
  readonly #part: Part;
  readonly #numbering: Numbering;
  /** By event; null where it depends on too much. */
  readonly #tables: readonly (readonly Table[] | null)[];
  readonly #sizes: readonly number[];
  readonly #weights: readonly number[];
  /** The value of each variable here. */
  readonly #digits: Int32Array;
  readonly #here: Registers;
  /** Whether the registers are those of the state here. */
  #judged = false;
  readonly #inputs: readonly number[];
  readonly #inputWeight: Float64Array;
  readonly #memoryWeight: Float64Array;
  /** By function and phase: what the phase adds to the number. */
  readonly #phaseShare: Float64Array;
  /** What was before an event, to go back to. */
  readonly #before: Registers;
  #number = 0;

  constructor(machine: Machine, part: Part) {
    this.#machine = machine;
    this.#part = part;
    this.#numbering = new Numbering(part);
    this.#tables = part.events.map((event) => tablesOf(machine, part, event));
    this.#sizes = part.variables.map(({ size }) => size);
    this.#weights = this.#numbering.weights;
    this.#digits = new Int32Array(part.variables.length);
    this.#here = machine.blank();
    this.#before = machine.blank();
    this.#inputs = part.variables.filter((v) => v.kind === 'input').map((v) => v.at);
    this.#inputWeight = new Float64Array(this.#here.values.length);
    this.#memoryWeight = new Float64Array(this.#here.memory.length);
    this.#phaseShare = new Float64Array(PHASES * this.#here.phases.length);
    let weight = 1;
    for (const variable of part.variables) {
      switch (variable.kind) {
        case 'input':
          this.#inputWeight[variable.at] = weight;
          break;
        case 'memory':
          this.#memoryWeight[variable.at] = weight;
          break;
        case 'phase':
          for (const [i, phase] of variable.phases.entries())
            this.#phaseShare[PHASES * variable.at + phase] = weight * i;
      }
      weight *= variable.size;
    }
  }

  /** The number of the state at rest. */
  get first(): number {
    const r = this.#machine.blank();
    this.#machine.settle(this.#part.judged, r);
    return this.#numbering.of(r);
  }

  /** Goes to a state. */
  goTo(number: number): void {
    this.#number = number;
    this.#judged = false;
    let rest = number;
    for (let i = 0; i < this.#sizes.length; i++) {
      const size = this.#sizes[i] ?? 1;
      const above = Math.floor(rest / size);
      this.#digits[i] = rest - above * size;
      rest = above;
    }
  }

  /** The number of the state that an event of the part leads to from here, by its place; -1 when it does not happen. */
  after(place: number): number {
    const tables = this.#tables[place] ?? null;
    if (tables === null) return this.#worked(place);
    let number = this.#number;
    for (const table of tables) {
      const add = table.rows[this.#rowOf(table)] ?? UNKNOWN;
      if (add === NEVER) return -1;
      number += add;
    }
    return number < UNKNOWN ? number : this.#learnt(place, tables);
  }

  #rowOf({ at, steps }: Table): number {
    let row = 0;
    for (let i = 0; i < at.length; i++) row += (this.#digits[at[i] ?? 0] ?? 0) * (steps[i] ?? 0);
    return row;
  }

  /** Lets an event happen, and keeps what it did. */
  #learnt(place: number, tables: readonly Table[]): number {
    const number = this.#worked(place);
    for (const table of tables) {
      const row = this.#rowOf(table);
      if (number >= 0)
        table.rows[row] = table.changes.reduce((sum, v) => {
          const [size, weight] = [this.#sizes[v] ?? 1, this.#weights[v] ?? 1];
          return sum + ((Math.floor(number / weight) % size) - (this.#digits[v] ?? 0)) * weight;
        }, 0);
      else if (table.decides) table.rows[row] = NEVER;
    }
    return number;
  }

  /** Where an event leads, by letting it happen and taking it back. */
  #worked(place: number): number {
    const event = this.#part.events[place];
    if (event === undefined) return -1;
    if (!this.#judged) {
      this.#numbering.into(this.#number, this.#here);
      this.#machine.judge(this.#part.judged, this.#here);
      this.#judged = true;
    }
    const { values, memory, phases, on } = this.#here;
    const before = this.#before;
    const { move, touches } = event;
    const inputs = this.#inputs;
    if (move !== null) {
      if (values[move.input] === move.value) return -1;
      for (const at of inputs) before.values[at] = values[at] ?? 0;
    }
    for (const rank of touches) {
      before.memory[rank] = memory[rank] ?? 0;
      before.phases[rank] = phases[rank] ?? 0;
      before.on[rank] = on[rank] ?? 0;
    }
    const happens = this.#machine.take(this.#part, this.#here, event);
    let number = this.#number;
    if (move !== null)
      for (const at of inputs) {
        const was = before.values[at] ?? 0;
        number += ((values[at] ?? 0) - was) * (this.#inputWeight[at] ?? 0);
        values[at] = was;
      }
    for (const rank of touches) {
      const remembered = memory[rank] ?? 0;
      const was = before.memory[rank] ?? 0;
      if (remembered !== was) {
        number += (remembered - was) * (this.#memoryWeight[rank] ?? 0);
        memory[rank] = was;
      }
      const phase = phases[rank] ?? 0;
      const phaseWas = before.phases[rank] ?? 0;
      if (phase !== phaseWas) {
        const share = PHASES * rank;
        number += (this.#phaseShare[share + phase] ?? 0) - (this.#phaseShare[share + phaseWas] ?? 0);
        phases[rank] = phaseWas;
      }
      on[rank] = before.on[rank] ?? 0;
    }
    return happens ? number : -1;
  }
}

/** Tables for an event of a part, yet to be filled: one if that is small, else one a variable; null where that is not small. */
function tablesOf({ wired, programme }: Machine, part: Part, event: MachineEvent): readonly Table[] | null {
  const { move, ends, reaches, judges } = event;
  const { variables } = part;
  const moved = new Set<number>(move === null ? [] : [move.input]);
  if (move !== null && wired.follows.some(({ input }) => input === move.input))
    for (const { input, follower } of wired.follows) moved.add(input).add(follower);
  // What is forbidden and names nothing that moves is as it was before: not so.
  const forbidden = part.never.flatMap(({ inputs }) => (inputs.some((at) => moved.has(at)) ? inputs : []));
  const decided = placesIn(
    variables,
    new Set([...moved, ...forbidden]),
    new Set(ends === null ? [] : [ends]),
  );
  // Judging changes what is remembered of those that forget, and the phases of those with timers.
  const judged = judges.filter((rank) => {
    const fn = programme.ranked[rank];
    return fn !== undefined && (fn.forgets || isTimed(fn.when));
  });
  const changed = placesIn(
    variables,
    moved,
    new Set([...reaches, ...judged, ...(ends === null ? [] : [ends])]),
  );
  const each = changed.map((place) => {
    const variable = variables[place];
    const inputs = new Set(moved);
    const functions = new Set<number>();
    const asked = variable?.kind === 'input' ? [] : bound(programme, variable?.at ?? -1, reaches);
    for (const rank of asked) {
      const cone = wired.dependsOn(rank);
      for (const at of cone.inputs) inputs.add(at);
      for (const fn of cone.functions) functions.add(fn);
    }
    return { changes: [place], at: placesIn(variables, inputs, functions) };
  });
  const all = [...new Set([...decided, ...each.flatMap(({ at }) => at)])];
  const one = tableOf(variables, all, changed, true);
  if (one !== null) return [one];
  const apart = [
    tableOf(variables, decided, [], true),
    ...each.map(({ at, changes }) => tableOf(variables, at, changes, false)),
  ];
  const small = apart.filter((table) => table !== null);
  return small.length < apart.length ? null : small;
}

/** The places of the variables of some inputs and functions. */
const placesIn = (
  variables: readonly Variable[],
  inputs: ReadonlySet<number>,
  functions: ReadonlySet<number>,
): number[] =>
  variables.flatMap((variable, place) =>
    (variable.kind === 'input' ? inputs : functions).has(variable.at) ? [place] : [],
  );

/** A function, and those that an event reaches with which it is one choice. */
function bound({ ranked }: Programme, rank: number, reaches: readonly number[]): number[] {
  const choiceId = ranked[rank]?.choiceId ?? null;
  return choiceId === null
    ? [rank]
    : [rank, ...reaches.filter((other) => ranked[other]?.choiceId === choiceId)];
}

/** @returns null when it would have too many rows */
function tableOf(
  variables: readonly Variable[],
  at: readonly number[],
  changes: readonly number[],
  decides: boolean,
): Table | null {
  let rows = 1;
  const steps = at.map((place) => {
    const mine = rows;
    rows *= variables[place]?.size ?? 1;
    return mine;
  });
  return rows > MOST_ROWS
    ? null
    : { at, steps, changes, decides, rows: new Float64Array(rows).fill(UNKNOWN) };
}

/**
 * Every state of a part that can be reached from rest, breadth first: each by a shortest way.
 * @param most - of so many states it stops
 */
export function reachPart(machine: Machine, part: Part, most = MOST_STATES): ReachedPart {
  const found = new Growing();
  const raw = rawOf(part);
  if (raw > BigInt(Number.MAX_SAFE_INTEGER)) return atRestAlone(machine, part, found);
  const walker = new Walker(machine, part);
  const met = new Met(Number(raw));
  const { first } = walker;
  met.add(first);
  found.push(first, 0, -1, 0);
  let whole = true;
  for (let at = 0; at < found.count && whole; at++) {
    walker.goTo(found.states[at] ?? 0);
    const depth = (found.depths[at] ?? 0) + 1;
    for (let e = 0; e < part.events.length; e++) {
      const number = walker.after(e);
      if (number < 0 || !met.add(number)) continue;
      found.push(number, at, e, depth);
      if (found.count >= most) {
        whole = false;
        break;
      }
    }
  }
  const { states, parents, via, depths, count } = found;
  return new ReachedPart(part, { states, parents, via, depths, count, whole });
}

/** Of a part whose states cannot be numbered exactly nothing is known but where it begins. */
function atRestAlone(machine: Machine, part: Part, found: Growing): ReachedPart {
  const r = machine.blank();
  machine.settle(part.judged, r);
  found.push(new Numbering(part).of(r), 0, -1, 0);
  const { states, parents, via, depths, count } = found;
  return new ReachedPart(part, { states, parents, via, depths, count, whole: false });
}

/** Every state of a programme that can be reached, part by part: together they are all combinations. */
export interface Reach {
  readonly machine: Machine;
  readonly parts: readonly ReachedPart[];
  /** Values of all variables multiplied. */
  readonly raw: bigint;
  /** How many of these can be reached. */
  readonly count: bigint;
  /** Whether that is all that can be reached; else at least so many can. */
  readonly whole: boolean;
}

export function reach(machine: Machine, most = MOST_STATES): Reach {
  const parts = machine.parts.map((part) => reachPart(machine, part, most));
  return {
    machine,
    parts,
    raw: machine.parts.reduce((product, part) => product * rawOf(part), 1n),
    count: parts.reduce((product, { count }) => product * BigInt(count), 1n),
    whole: parts.every(({ whole }) => whole),
  };
}
