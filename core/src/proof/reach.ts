import type { ProgrammeEvent } from '../controls/programme.ts';
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
  readonly #weights: readonly number[];

  constructor({ variables }: Part) {
    this.#variables = variables;
    let weight = 1;
    this.#weights = variables.map(({ size }) => {
      const mine = weight;
      weight *= size;
      return mine;
    });
  }

  of({ values, memory, phases }: Registers): number {
    let number = 0;
    for (let i = 0; i < this.#variables.length; i++) {
      const variable = this.#variables[i];
      const weight = this.#weights[i] ?? 0;
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

/** Walks through the states of a part by their numbers. */
export class Walker {
  readonly #machine: Machine;
  readonly #part: Part;
  readonly #numbering: Numbering;
  readonly #here: Registers;
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
    this.#numbering.into(number, this.#here);
    this.#machine.judge(this.#part.judged, this.#here);
  }

  /** The number of the state that an event leads to from here, where it stays; -1 when it does not happen. */
  after(event: MachineEvent): number {
    const { values, memory, phases, on } = this.#here;
    const before = this.#before;
    const { move, touches } = event;
    const inputs = this.#inputs;
    if (move !== null) {
      if (values[move.input] === move.value) return -1;
      for (const at of inputs) before.values[at] = values[at] ?? 0;
    }
    // The hottest loop of the proof: no call for what did not change.
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
      const event = part.events[e];
      if (event === undefined) continue;
      const number = walker.after(event);
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
