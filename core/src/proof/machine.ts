import { isTimed, type Programme } from '../controls/programme.ts';
import type { ControlFunction } from '../design/functions.ts';
import { OFF, ON, splitInParts, STAYING, WAITING, type MachineEvent, type Part } from './parts.ts';
import { CLEARS, SETS, Wired, type Asked } from './wired.ts';

/** All that a programme remembers, by the places of inputs and functions. */
export interface Registers {
  readonly values: Uint8Array;
  readonly memory: Uint8Array;
  readonly phases: Uint8Array;
  /** Follows from the rest. */
  readonly on: Uint8Array;
}

/**
 * A programme in numbers, ready to be walked through: it does what `step` does, part by part. Functions are named by
 * their rank, inputs by their place.
 */
export class Machine {
  readonly programme: Programme;
  readonly wired: Wired;
  readonly parts: readonly Part[];
  readonly #asked: readonly { readonly condition: Asked | null; readonly enabled: Asked | null }[];
  /** By function: what says whether it is on while it is enabled. */
  readonly #goesBy: Uint8Array;
  readonly #master: Asked | null;
  readonly #hasChoices: boolean;
  readonly #moved: Uint8Array;
  readonly #does: Uint8Array;
  readonly #came: Uint8Array;

  constructor(programme: Programme) {
    const { inputs, ranked, controls } = programme;
    const wired = new Wired(programme);
    this.programme = programme;
    this.wired = wired;
    this.#asked = ranked.map((fn) => ({
      condition: fn.when.way === 'while' ? wired.asked(fn.when.condition) : null,
      enabled: fn.enabledBy === null ? null : wired.asked(fn.enabledBy),
    }));
    this.#goesBy = Uint8Array.from(ranked, ({ when }) => goesByOf(when));
    this.#master = controls.enabledBy === null ? null : wired.asked(controls.enabledBy);
    this.#hasChoices = ranked.some(({ choiceId }) => choiceId !== null);
    this.#moved = new Uint8Array(inputs.length);
    this.#does = new Uint8Array(ranked.length);
    this.#came = new Uint8Array(ranked.length);
    this.parts = splitInParts(wired);
  }

  /** Registers with every input at rest and every memory clear, nothing judged yet. */
  blank(): Registers {
    const { inputs, ranked } = this.programme;
    return {
      values: new Uint8Array(inputs.length),
      memory: new Uint8Array(ranked.length),
      phases: new Uint8Array(ranked.length),
      on: new Uint8Array(ranked.length),
    };
  }

  /** Judges functions, each after those that it asks about; those that forget and are not enabled forget. */
  settle(judged: readonly number[], { values, memory, phases, on }: Registers): void {
    const { ranked } = this.programme;
    for (const rank of judged) {
      const fn = ranked[rank];
      if (fn === undefined) continue;
      const enabled = this.#isEnabled(rank, fn, values, on);
      if (!enabled && fn.forgets) memory[rank] = 0;
      const { when } = fn;
      switch (when.way) {
        case 'always':
          on[rank] = enabled ? 1 : 0;
          break;
        case 'latched':
        case 'cycle':
          on[rank] = enabled && (memory[rank] ?? 0) > 0 ? 1 : 0;
          break;
        case 'while': {
          const holds = enabled && this.#asked[rank]?.condition?.(values, on) === true;
          if (!isTimed(when)) {
            on[rank] = holds ? 1 : 0;
            break;
          }
          const phase = enabled
            ? nextPhase(phases[rank] ?? OFF, holds, when.afterMs > 0, when.staysMs > 0)
            : OFF;
          phases[rank] = phase;
          on[rank] = phase >= ON ? 1 : 0;
        }
      }
    }
  }

  /** What is on, given values, memories and phases of a settled state. */
  judge(judged: readonly number[], { values, memory, phases, on }: Registers): void {
    const { ranked } = this.programme;
    for (const rank of judged) {
      const fn = ranked[rank];
      if (fn === undefined) continue;
      const goesBy = this.#goesBy[rank];
      if (goesBy === PHASE) {
        on[rank] = (phases[rank] ?? OFF) >= ON ? 1 : 0;
        continue;
      }
      const isOn =
        this.#isEnabled(rank, fn, values, on) &&
        (goesBy === MEMORY
          ? (memory[rank] ?? 0) > 0
          : goesBy === ITSELF || this.#asked[rank]?.condition?.(values, on) === true);
      on[rank] = isOn ? 1 : 0;
    }
  }

  /**
   * One event, in place.
   * @returns false when it does not happen; the registers are then spoilt
   */
  take(part: Part, r: Registers, { move, heard, ends, reaches, judges }: MachineEvent): boolean {
    const { values, memory, phases, on } = r;
    const does = this.#does;
    for (const rank of reaches) does[rank] = 0;
    for (const { fn, does: what } of heard) does[fn] = (does[fn] ?? 0) | what;
    if (move !== null && !this.#moveInputs(part, values, move.input, move.value)) return false;
    if (ends !== null) {
      const phase = phases[ends] ?? OFF;
      const fn = this.programme.ranked[ends];
      if (fn !== undefined && isTimed(fn.when)) {
        if (phase !== WAITING && phase !== STAYING) return false;
        phases[ends] = phase === WAITING ? ON : OFF;
      } else {
        if (memory[ends] === 0) return false;
        memory[ends] = 0;
      }
    } else this.#remember(reaches, values, memory, on);
    this.settle(judges, r);
    return true;
  }

  #moveInputs(part: Part, values: Uint8Array, input: number, value: number): boolean {
    if (values[input] === value) return false;
    values[input] = value;
    if (this.wired.follows.length > 0) {
      const moved = this.#moved.fill(0);
      moved[input] = 1;
      for (const { input: leader, at, follower, takes, heard } of this.wired.follows) {
        if (moved[leader] !== 1 || !at.has(values[leader] ?? 0)) continue;
        if (moved[follower] === 1 || values[follower] === takes) continue;
        values[follower] = takes;
        moved[follower] = 1;
        for (const { fn, does } of heard) this.#does[fn] = (this.#does[fn] ?? 0) | does;
      }
    }
    for (const { when, then } of part.never)
      if (when(values, NOTHING_ON) && !then(values, NOTHING_ON)) return false;
    return true;
  }

  #remember(reaches: readonly number[], values: Uint8Array, memory: Uint8Array, on: Uint8Array): void {
    const { ranked } = this.programme;
    const does = this.#does;
    const came = this.#came;
    let anyCame = false;
    for (const rank of reaches) {
      came[rank] = 0;
      const fn = ranked[rank];
      if (fn === undefined) continue;
      const what = does[rank] ?? 0;
      if (what === 0 && !fn.forgets) continue;
      const before = memory[rank] ?? 0;
      if (!this.#isEnabled(rank, fn, values, on)) {
        if (fn.forgets) memory[rank] = 0;
        continue;
      }
      if (what === 0) continue;
      if ((what & CLEARS) !== 0) memory[rank] = 0;
      else if ((what & SETS) !== 0) memory[rank] = 1;
      else memory[rank] = stepped(fn, before);
      if (before === 0 && (memory[rank] ?? 0) > 0) {
        came[rank] = 1;
        anyCame = true;
      }
    }
    if (anyCame && this.#hasChoices) this.#keepChoices(reaches, memory);
  }

  /** Of a choice one is remembered: the one that came last; of several at once the strongest. */
  #keepChoices(reaches: readonly number[], memory: Uint8Array): void {
    const { ranked } = this.programme;
    const settled = new Set<string>();
    for (const rank of reaches) {
      const choiceId = ranked[rank]?.choiceId ?? null;
      if (choiceId === null || this.#came[rank] !== 1 || settled.has(choiceId)) continue;
      settled.add(choiceId);
      for (const other of reaches)
        if (other !== rank && ranked[other]?.choiceId === choiceId) memory[other] = 0;
    }
  }

  #isEnabled(rank: number, fn: ControlFunction, values: Uint8Array, on: Uint8Array): boolean {
    if (!fn.withoutMaster && this.#master !== null && !this.#master(values, on)) return false;
    const enabled = this.#asked[rank]?.enabled ?? null;
    return enabled === null || enabled(values, on);
  }
}

const NOTHING_ON = new Uint8Array(0);

/** What says whether a function is on: that it is enabled, what it remembers, its phase, or its condition. */
const ITSELF = 0;
const MEMORY = 1;
const PHASE = 2;
const CONDITION = 3;

function goesByOf(when: ControlFunction['when']): number {
  switch (when.way) {
    case 'always':
      return ITSELF;
    case 'latched':
    case 'cycle':
      return MEMORY;
    case 'while':
      return isTimed(when) ? PHASE : CONDITION;
  }
}

/** What a function remembers after an event that toggles or steps it. */
function stepped({ when, shows }: ControlFunction, before: number): number {
  if (when.way !== 'cycle') return 1 - before;
  if (before < shows.length) return before + 1;
  return when.wraps === 'first' ? 1 : 0;
}

function nextPhase(phase: number, holds: boolean, waits: boolean, stays: boolean): number {
  switch (phase) {
    case OFF:
      return holds ? (waits ? WAITING : ON) : OFF;
    case WAITING:
      return holds ? WAITING : OFF;
    case ON:
      return holds ? ON : stays ? STAYING : OFF;
    default:
      return holds ? ON : STAYING;
  }
}
