import type { ProgrammeEvent } from '../controls/programme.ts';
import { grown } from './bits.ts';
import type { Machine } from './machine.ts';
import { Numbering } from './numbering.ts';
import type { MachineEvent, Part } from './parts.ts';
import { Walker } from './walker.ts';

/** A part is not walked farther than this many states; what lies beyond is then not known. */
export const MOST_STATES = 2_000_000;
/** Nor are more moves tried, for each state that may be walked: some programmes have many, and each costs much. */
const MOST_MOVES = 30;
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
    { states, parents, via, depths, count, whole }: Omit<ReachedPart, 'part' | 'of' | 'wayTo'>,
  ) {
    this.part = part;
    this.states = states;
    this.parents = parents;
    this.via = via;
    this.depths = depths;
    this.count = count;
    this.whole = whole;
  }

  /** The same states of a part that goes in the same way, in another programme. */
  of(part: Part): ReachedPart {
    return new ReachedPart(part, this);
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
  for (let from = 0; from < found.count && whole;) {
    const taken = walker.take(found.states, from, found.count - from);
    for (let s = 0; s < taken && whole; s++) {
      const at = from + s;
      if ((at + 1) * part.events.length > MOST_MOVES * Math.max(most, part.events.length)) {
        whole = false;
        break;
      }
      const depth = (found.depths[at] ?? 0) + 1;
      for (let e = 0; e < part.events.length; e++) {
        const number = walker.after(s, e);
        if (number < 0 || !met.add(number)) continue;
        found.push(number, at, e, depth);
        if (found.count >= most) {
          whole = false;
          break;
        }
      }
    }
    from += taken;
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

/**
 * Every state of a programme that can be reached.
 * @param most - a part is not walked farther than so many
 * @param known - a part that goes in the same way and was walked as far; null for none
 */
export function reach(
  machine: Machine,
  most = MOST_STATES,
  known: (part: Part) => ReachedPart | null = () => null,
): Reach {
  const parts = machine.parts.map((part) => known(part)?.of(part) ?? reachPart(machine, part, most));
  return {
    machine,
    parts,
    raw: machine.parts.reduce((product, part) => product * rawOf(part), 1n),
    count: parts.reduce((product, { count }) => product * BigInt(count), 1n),
    whole: parts.every(({ whole }) => whole),
  };
}
