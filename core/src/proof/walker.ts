import { tablesOf, type TableShape } from './eventTables.ts';
import type { Machine, Registers } from './machine.ts';
import { Numbering } from './numbering.ts';
import type { Part } from './parts.ts';

/** Of a row that was not asked for yet, and of one in which the event does not happen. */
const UNKNOWN = Infinity;
const NEVER = -Infinity;

/** So many states are taken at once: what an event does to them is read off side by side. */
const BLOCK = 128;

/** A table with what is known of its rows, filled as they are met. */
class Table {
  readonly shape: TableShape;
  readonly rows: Float64Array;

  constructor(shape: TableShape) {
    this.shape = shape;
    this.rows = new Float64Array(shape.rowCount).fill(UNKNOWN);
  }
}

/** Phases of a function are numbered below this. */
const PHASES = 4;

/** Walks through the states of a part by their numbers, some of them at a time. */
export class Walker {
  readonly #machine: Machine;
  readonly #part: Part;
  readonly #numbering: Numbering;
  /** By event; null where it depends on too much. */
  readonly #tables: readonly (readonly Table[] | null)[];
  readonly #sizes: readonly number[];
  /** The states taken, and how many. */
  readonly #numbers = new Float64Array(BLOCK);
  #count = 0;
  /** By variable: its value in each of them. */
  readonly #digits: readonly Int32Array[];
  /** Event by event: where it leads from each of them. */
  readonly #there: Float64Array;
  /** The row of a table for each of them. */
  readonly #row = new Int32Array(BLOCK);
  readonly #weights: readonly number[];
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
  #number = -1;

  constructor(machine: Machine, part: Part) {
    this.#machine = machine;
    this.#part = part;
    this.#numbering = new Numbering(part);
    this.#tables = part.events.map(
      (event) => tablesOf(machine, part, event)?.map((shape) => new Table(shape)) ?? null,
    );
    this.#sizes = part.variables.map(({ size }) => size);
    this.#weights = this.#numbering.weights;
    this.#digits = part.variables.map(() => new Int32Array(BLOCK));
    this.#there = new Float64Array(BLOCK * part.events.length);
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

  /**
   * Takes some states.
   * @param from - the place of the first of them
   * @param most - no more of them
   * @returns how many were taken: no more than go side by side
   */
  take(states: Float64Array, from: number, most: number): number {
    const count = Math.min(BLOCK, most);
    this.#count = count;
    this.#numbers.set(states.subarray(from, from + count));
    const rest = this.#numbers.slice();
    for (const [v, size] of this.#sizes.entries()) {
      const digits = this.#digitsOf(v);
      for (let s = 0; s < count; s++) {
        const value = rest[s] ?? 0;
        const above = Math.floor(value / size);
        digits[s] = value - above * size;
        rest[s] = above;
      }
    }
    for (const [event, tables] of this.#tables.entries()) this.#lead(event, tables);
    return count;
  }

  /** Reads off where an event leads from all that were taken, as far as that is known. */
  #lead(event: number, tables: readonly Table[] | null): void {
    const to = event * BLOCK;
    if (tables === null) {
      this.#there.fill(UNKNOWN, to, to + this.#count);
      return;
    }
    this.#there.set(this.#numbers, to);
    for (const table of tables) this.#add(table, to);
  }

  /** Adds what one of the tables of an event tells, two variables at a time: most go by no more. */
  #add({ shape: { at, steps }, rows }: Table, to: number): void {
    const there = this.#there;
    const count = this.#count;
    const row = this.#row.fill(0, 0, count);
    for (let i = 0; i < at.length; i += 2) {
      const a = this.#digitsOf(at[i]);
      const b = this.#digitsOf(at[i + 1]);
      const stepA = steps[i] ?? 0;
      const stepB = steps[i + 1] ?? 0;
      for (let s = 0; s < count; s++)
        row[s] = (row[s] ?? 0) + Math.imul(a[s] ?? 0, stepA) + Math.imul(b[s] ?? 0, stepB);
    }
    for (let s = 0; s < count; s++) there[to + s] = (there[to + s] ?? 0) + (rows[row[s] ?? 0] ?? UNKNOWN);
  }

  /** What was taken has of a variable; 0 of none. */
  #digitsOf(variable: number | undefined): Int32Array {
    return (variable === undefined ? undefined : this.#digits[variable]) ?? NO_DIGITS;
  }

  /**
   * The number of the state that an event leads to from one of those taken; -1 when it does not happen.
   * @param s - its place among them
   * @param event - its place among those of the part
   */
  after(s: number, event: number): number {
    const there = this.#there[event * BLOCK + s] ?? UNKNOWN;
    if (there >= 0 && there < UNKNOWN) return there;
    return there === NEVER ? -1 : this.#learnt(s, event);
  }

  /** Lets an event happen, and keeps what it did; another of those taken may have told already. */
  #learnt(s: number, event: number): number {
    const here = this.#numbers[s] ?? 0;
    const tables = this.#tables[event] ?? null;
    const rows = tables?.map(({ shape: { at, steps } }) =>
      at.reduce((row, v, i) => row + (this.#digits[v]?.[s] ?? 0) * (steps[i] ?? 0), 0),
    );
    const told = tables?.reduce((sum, table, t) => sum + (table.rows[rows?.[t] ?? 0] ?? UNKNOWN), here);
    if (told === NEVER) return -1;
    if (told !== undefined && told < UNKNOWN) return told;
    this.#goTo(here);
    const number = this.#worked(event);
    for (const [t, { rows: known, shape }] of (tables ?? []).entries()) {
      const row = rows?.[t] ?? 0;
      if (number >= 0)
        known[row] = shape.changes.reduce((sum, v) => {
          const [size, weight] = [this.#sizes[v] ?? 1, this.#weights[v] ?? 1];
          return sum + ((Math.floor(number / weight) % size) - (this.#digits[v]?.[s] ?? 0)) * weight;
        }, 0);
      else if (shape.decides) known[row] = NEVER;
    }
    return number;
  }

  #goTo(number: number): void {
    if (number === this.#number) return;
    this.#number = number;
    this.#judged = false;
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

/** Of a variable that there is not. */
const NO_DIGITS: Int32Array = new Int32Array(BLOCK);
