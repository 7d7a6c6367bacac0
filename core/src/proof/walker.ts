import { tablesOf, type TableShape } from './eventTables.ts';
import type { Machine, Registers } from './machine.ts';
import { Numbering } from './numbering.ts';
import type { Part } from './parts.ts';

/** Of a row that was not asked for yet, and of one in which the event does not happen. */
const UNKNOWN = Infinity;
const NEVER = -Infinity;

/** A table with what is known of its rows, filled as they are met. A class: the hottest loop reads its fields. */
class Table {
  readonly at: readonly number[];
  readonly steps: readonly number[];
  readonly rows: Float64Array;
  readonly shape: TableShape;

  constructor(shape: TableShape) {
    this.at = shape.at;
    this.steps = shape.steps;
    this.rows = new Float64Array(shape.rowCount).fill(UNKNOWN);
    this.shape = shape;
  }
}

/** Phases of a function are numbered below this. */
const PHASES = 4;
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
    this.#tables = part.events.map(
      (event) => tablesOf(machine, part, event)?.map((shape) => new Table(shape)) ?? null,
    );
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
        table.rows[row] = table.shape.changes.reduce((sum, v) => {
          const [size, weight] = [this.#sizes[v] ?? 1, this.#weights[v] ?? 1];
          return sum + ((Math.floor(number / weight) % size) - (this.#digits[v] ?? 0)) * weight;
        }, 0);
      else if (table.shape.decides) table.rows[row] = NEVER;
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
