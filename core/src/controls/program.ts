import { leavesOf, type InputEvent } from '../design/condition.ts';
import { onKey, type Controls, type ActiveFunction } from '../design/controls.ts';
import type { ControlFunction, When } from '../design/functions.ts';
import { eventsOf, inputsOf, originalOf, type Input } from '../design/inputs.ts';
import { conditionReads, dependencyOrder } from '../design/programFaults.ts';
import type { Build } from '../design/schema.ts';

/** What happens: to an input, or a timer of a function comes to its end. */
export type ProgramEvent = InputEvent | { readonly kind: 'ends'; readonly functionId: string };

/** Where a `while` with timers stands. */
export type Phase = 'off' | 'waiting' | 'on' | 'staying';

/** All that a programme remembers. */
export interface ControlState {
  /** The value of every input. */
  readonly values: ReadonlyMap<string, string>;
  /** Of each latched function 0 or 1, of each cycle its number; 0 is clear. */
  readonly memory: ReadonlyMap<string, number>;
  /** Of each `while` with timers. */
  readonly phases: ReadonlyMap<string, Phase>;
  /** Ids of the functions that are on. Follows from the rest. */
  readonly on: ReadonlySet<string>;
}

/** The controls of a build, ready to run. */
export class ControlProgram {
  readonly inputs: readonly Input[];
  readonly controls: Controls;
  /** Strongest first: signals, then the others by their place in the list. */
  readonly ranked: readonly ControlFunction[];
  /** Each after those that it asks about. */
  readonly inOrder: readonly ControlFunction[];
  readonly #values: ReadonlyMap<string, ReadonlySet<string>>;
  readonly #byId: ReadonlyMap<string, ControlFunction>;
  /** Buttons whose long press or chord is used: going down is no short press of theirs. */
  readonly deliberate: ReadonlySet<string>;

  /**
   * @param deliberate - buttons that stay so, whatever of the controls is left out
   * @throws {RangeError} functions wait for each other in a ring
   */
  constructor(inputs: readonly Input[], controls: Controls, deliberate: ReadonlySet<string> = new Set()) {
    this.inputs = inputs;
    this.controls = controls;
    const { functions } = controls;
    this.ranked = [
      ...functions.filter((fn) => fn.kind === 'signal'),
      ...functions.filter((fn) => fn.kind !== 'signal'),
    ];
    const order = dependencyOrder(functions);
    if (order === null) throw new RangeError('functions have a circular dependency');
    this.inOrder = order;
    this.#values = new Map(inputs.map(({ id, values }) => [id, new Set(values)]));
    this.#byId = new Map(functions.map((fn) => [fn.id, fn]));
    const mine = eventsOf(controls).flatMap((event) => {
      if (event.kind === 'chord') return event.controls.map((id) => originalOf(controls, id));
      return event.kind === 'press' && event.press === 'long' ? [originalOf(controls, event.control)] : [];
    });
    this.deliberate = new Set([...deliberate, ...mine]);
  }

  /** The same inputs with some functions alone, and those without which they would not go as they do: what they ask about, and what they exclude. */
  about(ids: readonly string[]): ControlProgram {
    const { functions, enabledBy } = this.controls;
    const kept = new Set<string>();
    const keep = (id: string): void => {
      const fn = this.#byId.get(id);
      if (fn === undefined || kept.has(id)) return;
      kept.add(id);
      for (const asked of conditionReads(fn)) keep(asked);
      if (fn.choiceId !== null)
        for (const other of functions) if (other.choiceId === fn.choiceId) keep(other.id);
    };
    for (const id of ids) keep(id);
    for (const leaf of enabledBy === null ? [] : leavesOf(enabledBy))
      if (leaf.kind === 'on') keep(leaf.functionId);
    const mine = functions.filter(({ id }) => kept.has(id));
    return new ControlProgram(this.inputs, { ...this.controls, functions: mine }, this.deliberate);
  }

  function(id: string): ControlFunction | undefined {
    return this.#byId.get(id);
  }

  /** Whether a press of a button takes longer to tell: it has a long press, or is part of a chord. */
  isDeliberate(controlId: string): boolean {
    return this.deliberate.has(originalOf(this.controls, controlId));
  }

  /** Whether an input has values, as a button need not. */
  hasValue(inputId: string): boolean {
    return this.#values.has(inputId);
  }

  /** Whether an input can stand at a value. */
  knows(inputId: string, value: string): boolean {
    return this.#values.get(inputId)?.has(value) === true;
  }
}

const known = new WeakMap<Build, ControlProgram>();

/**
 * The programme of a build; a build never changes, so it is made once.
 * @throws {RangeError} functions wait for each other in a ring
 */
export function compileProgram(build: Build): ControlProgram {
  const programme = known.get(build) ?? new ControlProgram(inputsOf(build), build.controls);
  known.set(build, programme);
  return programme;
}

/** An event as functions listen to it; keys of a chord in either order. */
export function eventName({ controls }: ControlProgram, event: InputEvent): string {
  switch (event.kind) {
    case 'press':
      return `press ${originalOf(controls, event.control)} ${event.press}`;
    case 'chord':
      return `chord ${event.controls
        .map((id) => originalOf(controls, id))
        .toSorted()
        .join(' ')}`;
    case 'arrives':
      return `arrives ${originalOf(controls, event.input)} ${event.value}`;
  }
}

/** Whether a `while` holds a phase of its own; a plain one is on exactly while its condition holds. */
export const isTimed = (when: When): when is Extract<When, { way: 'while' }> =>
  when.way === 'while' && (when.afterMs > 0 || when.staysMs > 0);

/** What a function remembers goes from 0 to this; 0 for one that remembers nothing. */
export function mostRemembered({ when, shows }: ControlFunction): number {
  switch (when.way) {
    case 'always':
    case 'while':
      return 0;
    case 'latched':
      return 1;
    case 'cycle':
      return shows.length;
  }
}

/** The functions that are on as states name them, strongest first. */
export const onsIn = ({ ranked }: ControlProgram, { on, memory }: ControlState): ActiveFunction[] =>
  ranked
    .filter(({ id }) => on.has(id))
    .map((fn) => onKey(fn.id, fn.when.way === 'cycle' ? (memory.get(fn.id) ?? 1) : 1));

/** What the loads stand at: the strongest function that speaks of one wins. */
export function loadsIn(programme: ControlProgram, state: ControlState): ReadonlyMap<string, string> {
  const out = new Map(programme.controls.loads.map(({ id, values: [off = ''] }) => [id, off]));
  const set = new Set<string>();
  for (const fn of programme.ranked) {
    if (!state.on.has(fn.id)) continue;
    const number = fn.when.way === 'cycle' ? (state.memory.get(fn.id) ?? 1) : 1;
    for (const { loadId, value } of fn.shows[number - 1]?.loads ?? [])
      if (!set.has(loadId)) {
        set.add(loadId);
        out.set(loadId, value);
      }
  }
  return out;
}
