import type { ControlProgram } from '../controls/program.ts';
import { isTimed, type ControlState } from '../controls/program.ts';
import type { Condition } from '../design/condition.ts';
import { readOn, type ActiveFunction } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { SHUT } from '../design/inputs.ts';
import { OverBudget } from './cannotTell.ts';
import { Diagrams, EVERY, NONE, type Diagram } from './diagrams.ts';
import { ON, PHASES, splitInParts, type Part, type Variable } from './parts.ts';
import { orderOf, type Bits, type Order } from './variables.ts';
import { CompiledProgram } from './wired.ts';

/** By value of a variable: the states in which it has it. */
export type ByValue = readonly Diagram[];

/** What all variables of a program are, each as sets of present states: now, or after an event. */
export interface Valuation {
  readonly input: (at: number) => ByValue;
  readonly memory: (rank: number) => ByValue;
  readonly phase: (rank: number) => ByValue;
  readonly isOn: (rank: number) => Diagram;
}

/** A program as sets of states: what is on, what conditions hold where. Functions are named by rank, inputs by place. */
export class SymbolicProgram {
  readonly programme: ControlProgram;
  readonly wired: CompiledProgram;
  readonly parts: readonly Part[];
  readonly diagrams: Diagrams;
  readonly order: Order;
  readonly present: Valuation;
  /** By level of its variable: a way of being on. */
  readonly #onAt: ReadonlyMap<number, ActiveFunction>;
  /** By rank: null for a function that asks about too much. */
  readonly #judged: (Diagram | null)[] = [];

  /** @param most - nodes that its diagrams may have: what needs more throws `OverBudget` */
  constructor(programme: ControlProgram, most?: number) {
    this.programme = programme;
    this.wired = new CompiledProgram(programme);
    this.parts = splitInParts(this.wired);
    this.order = orderOf(this.wired, this.parts);
    this.diagrams = new Diagrams(this.order.levels, most);
    const inputs = this.order.inputs.map((bits) => this.#valuesOf(bits));
    const held = this.order.functions.map((bits) => this.#valuesOf(bits));
    this.present = {
      input: (at) => inputs[at] ?? [],
      memory: (rank) => held[rank] ?? [],
      phase: (rank) => held[rank] ?? [],
      isOn: (rank) => this.#isOn(rank),
    };
    this.#onAt = new Map([...this.order.ons].map(([on, level]) => [level, on]));
    for (const rank of this.wired.inOrder)
      this.#judged[rank] = this.diagrams.attempt(() => this.judged(rank, this.present));
  }

  #isOn(rank: number): Diagram {
    const is = this.#judged[rank];
    if (is === null) throw new OverBudget('one function reads too many inputs');
    return is ?? NONE;
  }

  /** The states in which a function is on in some way; none where the program has no such function. */
  isOn(on: ActiveFunction): Diagram {
    const { id, number } = readOn(on);
    const rank = this.wired.rankOf(id);
    const fn = this.programme.ranked[rank ?? -1];
    if (rank === undefined || fn === undefined) return NONE;
    const is = this.#isOn(rank);
    return fn.when.way === 'cycle' ? this.diagrams.and(is, this.present.memory(rank)[number] ?? NONE) : is;
  }

  /** The variable that says that a function is on in some way; none where the program has no such function. */
  onVariable(on: ActiveFunction): Diagram {
    const level = this.order.ons.get(on);
    return level === undefined ? NONE : this.diagrams.variable(level);
  }

  /** By number of its value: the states in which a variable has it. */
  #valuesOf(bits: Bits | undefined): Diagram[] {
    if (bits === undefined) return [];
    return Array.from({ length: bits.variable.size }, (_, value) => this.valueIs(bits, value, 0));
  }

  /** The states in which a variable has the value of a number. @param next - 0 for the present bits, 1 for the next */
  valueIs({ levels }: Bits, value: number, next: 0 | 1): Diagram {
    const all = levels.map((level) => level + next);
    return this.diagrams.point(all, new Set(all.filter((_, bit) => ((value >> bit) & 1) === 1)));
  }

  /** The states in which a condition holds. */
  holds(c: Condition, in_: Pick<Valuation, 'input' | 'isOn'> = this.present): Diagram {
    const d = this.diagrams;
    switch (c.kind) {
      case 'all':
        return d.all(c.of.map((part) => this.holds(part, in_)));
      case 'any':
        return d.any(c.of.map((part) => this.holds(part, in_)));
      case 'not':
        return d.not(this.holds(c.of, in_));
      case 'is': {
        const at = this.wired.placeOf(c.input);
        const input = at === undefined ? undefined : this.programme.inputs[at];
        if (at === undefined || input === undefined) return c.values.includes(SHUT) ? EVERY : NONE;
        const values = in_.input(at);
        return d.any(input.values.map((value, i) => (c.values.includes(value) ? (values[i] ?? NONE) : NONE)));
      }
      case 'on': {
        const rank = this.wired.rankOf(c.functionId);
        return rank === undefined ? NONE : in_.isOn(rank);
      }
    }
  }

  /** The states in which a function may be on, by what enables it and the program. */
  enabled({ enabledBy, withoutMaster }: ControlFunction, in_: Pick<Valuation, 'input' | 'isOn'>): Diagram {
    const master = this.programme.controls.enabledBy;
    const mine = enabledBy === null ? EVERY : this.holds(enabledBy, in_);
    return withoutMaster || master === null ? mine : this.diagrams.and(mine, this.holds(master, in_));
  }

  /** The states in which a function is on, given all that it goes by; that of a timed one says its phase. */
  judged(rank: number, in_: Valuation): Diagram {
    const d = this.diagrams;
    const fn = this.programme.ranked[rank];
    if (fn === undefined) return NONE;
    const { when } = fn;
    const hasPhase: boolean = isTimed(when);
    const enabled = this.enabled(fn, in_);
    switch (when.way) {
      case 'always':
        return enabled;
      case 'latched':
      case 'cycle':
        return d.and(enabled, d.not(in_.memory(rank)[0] ?? NONE));
      case 'while':
        return hasPhase
          ? this.isInPhase(rank, in_.phase(rank), (phase) => phase >= ON)
          : d.and(enabled, this.holds(when.condition, in_));
    }
  }

  /** The states in which the phase of a function is one of some. */
  isInPhase(rank: number, phases: ByValue, isIt: (phase: number) => boolean): Diagram {
    const variable = this.order.functions[rank]?.variable;
    if (variable?.kind !== 'phase') return NONE;
    return this.diagrams.any(variable.phases.map((phase, i) => (isIt(phase) ? (phases[i] ?? NONE) : NONE)));
  }

  /** The levels of the present bits of some parts, rising. */
  levelsOf(parts: readonly Part[]): number[] {
    return parts
      .flatMap(({ variables }) => variables.flatMap((one) => this.bitsOf(one).levels))
      .toSorted((a, b) => a - b);
  }

  bitsOf(variable: Variable): Bits {
    const bits = (variable.kind === 'input' ? this.order.inputs : this.order.functions)[variable.at];
    if (bits === undefined) throw new RangeError(`no bits of ${variable.kind} ${variable.at}`);
    return bits;
  }

  /** Whether a state that was played is one of some states. */
  contains(states: Diagram, state: ControlState): boolean {
    const isTrue = new Set(
      this.parts.flatMap(({ variables }) =>
        variables.flatMap((variable) => {
          const value = this.#valueOf(variable, state);
          return this.bitsOf(variable).levels.filter((_, bit) => ((value >> bit) & 1) === 1);
        }),
      ),
    );
    return this.diagrams.holdsAt(states, isTrue);
  }

  /** The number of a variable's value in a state that was played. */
  #valueOf(variable: Variable, { values, memory, phases }: ControlState): number {
    const { inputs, ranked } = this.programme;
    const fn = ranked[variable.at];
    switch (variable.kind) {
      case 'input': {
        const input = inputs[variable.at];
        return input?.values.indexOf(values.get(input.id) ?? '') ?? -1;
      }
      case 'memory':
        return memory.get(fn?.id ?? '') ?? 0;
      case 'phase':
        return variable.phases.indexOf(PHASES.indexOf(phases.get(fn?.id ?? '') ?? 'off'));
    }
  }

  /** States told by what is on, as states told by their variables. */
  statesWhere(ons: Diagram): Diagram {
    const by = new Map<number, Diagram>();
    for (const level of this.diagrams.support(ons)) {
      const on = this.#onAt.get(level);
      if (on !== undefined) by.set(level, this.isOn(on));
    }
    return this.diagrams.compose(ons, by);
  }

  /**
   * Which of some ways of being on are together in some of these states: their output states. Each state bit is left out
   * when the last that asks about it is done.
   * @param kept - state bits that are told besides
   */
  outputStates(
    states: Diagram,
    ons: Iterable<ActiveFunction>,
    kept: ReadonlySet<number> = new Set(),
  ): Diagram {
    const d = this.diagrams;
    const asked = [...new Set(ons)]
      .flatMap((on) => {
        const level = this.order.ons.get(on);
        const is = this.isOn(on);
        return level === undefined ? [] : [{ level, is, bits: d.support(is) }];
      })
      .toSorted((a, b) => (a.bits.at(-1) ?? -1) - (b.bits.at(-1) ?? -1) || a.level - b.level);
    const lastAsked = new Map(asked.flatMap(({ bits }, i) => bits.map((bit) => [bit, i] as const)));
    const isDone = (bit: number): boolean => !kept.has(bit);
    const unasked = d.support(states).filter((bit) => !lastAsked.has(bit));
    let out = d.exists(states, d.cube(unasked.filter(isDone)));
    for (const [i, { level, is, bits }] of asked.entries()) {
      const done = bits.filter((bit) => lastAsked.get(bit) === i && isDone(bit));
      out = d.andExists(out, d.same(d.variable(level), is), d.cube(done));
    }
    return out;
  }

  /**
   * Every assignment to some ways of being on and some inputs that some states have.
   * @throws {OverBudget} there are more than so many
   */
  *classesOf(
    states: Diagram,
    ons: readonly ActiveFunction[],
    inputs: readonly number[],
    most: number,
  ): Generator<StateClass> {
    const d = this.diagrams;
    const bits = inputs.map((at) => this.order.inputs[at]);
    const kept = bits.flatMap((of) => of?.levels ?? []);
    const levels = [...kept, ...ons.flatMap((on) => this.order.ons.get(on) ?? [])];
    let left = this.outputStates(states, ons, new Set(kept));
    for (let count = 0; left !== NONE; count++) {
      if (count >= most) throw new OverBudget('too many ways in which functions and doors go together');
      const isTrue = d.pick(left);
      const point = d.point(levels, isTrue);
      left = d.without(left, point);
      yield {
        on: ons.filter((on) => isTrue.has(this.order.ons.get(on) ?? -1)),
        values: bits.map((of) =>
          (of?.levels ?? []).reduce((sum, level, bit) => sum + (isTrue.has(level) ? 1 << bit : 0), 0),
        ),
        states: d.and(states, this.statesWhere(point)),
      };
    }
  }
}

/** States alike in what is on of some functions, and in the values of some inputs. */
export interface StateClass {
  readonly on: readonly ActiveFunction[];
  /** By input asked about: the number of its value. */
  readonly values: readonly number[];
  readonly states: Diagram;
}
