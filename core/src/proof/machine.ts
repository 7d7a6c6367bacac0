import {
  eventName,
  isTimed,
  mostRemembered,
  type Programme,
  type ProgrammeEvent,
} from '../controls/programme.ts';
import { leavesOf, type Condition, type InputEvent } from '../design/condition.ts';
import type { Implication } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { eventsOf, SHUT } from '../design/inputs.ts';
import { asksAbout } from '../design/programmeFaults.ts';

/** A condition made ready to be asked often: of input values and of functions that are on, by their places. */
export type Asked = (values: Uint8Array, on: Uint8Array) => boolean;

/** What an event does to a function that listens: bits, as several may fall together. */
const CLEARS = 1;
const SETS = 2;
const STEPS = 4;

interface Heard {
  readonly fn: number;
  readonly does: number;
}

/** Where a `while` with timers stands, as numbers; those it may have depend on its timers. */
const OFF = 0;
const WAITING = 1;
const ON = 2;
const STAYING = 3;

/** Whether a phase is one without a timer that runs. */
export const isResting = (phase: number): boolean => phase === OFF || phase === ON;

/** A variable of a programme: the value of an input, what a function remembers, or its phase. */
export type Variable =
  | { readonly kind: 'input'; readonly at: number; readonly size: number }
  | { readonly kind: 'memory'; readonly at: number; readonly size: number }
  | {
      readonly kind: 'phase';
      readonly at: number;
      readonly size: number;
      /** The phases it may have, by their number. */
      readonly phases: readonly number[];
    };

/** Something that can happen, with what it moves. */
export interface MachineEvent {
  readonly event: ProgrammeEvent;
  /** An operator does it: on a control, or on an input that is worked by hand. */
  readonly byOperator: boolean;
  readonly move: { readonly input: number; readonly value: number } | null;
  readonly heard: readonly Heard[];
  /** The function whose timer ends; null for another event. */
  readonly ends: number | null;
  /** The functions whose memory it may change, strongest first. */
  readonly reaches: readonly number[];
  /** The functions that must be judged after it, each after those that it asks about. */
  readonly judges: readonly number[];
  /** Both of these. */
  readonly touches: readonly number[];
}

/** An event before it is known what it reaches. */
type BareEvent = Omit<MachineEvent, 'reaches' | 'judges' | 'touches'>;

/** All that a programme remembers, by the places of inputs and functions. */
export interface Registers {
  readonly values: Uint8Array;
  readonly memory: Uint8Array;
  readonly phases: Uint8Array;
  /** Follows from the rest. */
  readonly on: Uint8Array;
}

/** Variables that depend on each other, and on no others: their events move nothing else. */
export interface Part {
  readonly variables: readonly Variable[];
  /** The functions that must be judged to go on from a state, each after those that it asks about. */
  readonly judged: readonly number[];
  readonly never: readonly { readonly when: Asked; readonly then: Asked }[];
  readonly events: readonly MachineEvent[];
}

/**
 * A programme in numbers, ready to be walked through: it does what `step` does, part by part. Functions are named by
 * their rank, inputs by their place.
 */
export class Machine {
  readonly programme: Programme;
  readonly parts: readonly Part[];
  /** Each after those that it asks about. */
  readonly inOrder: readonly number[];
  readonly #rank: ReadonlyMap<string, number>;
  readonly #place: ReadonlyMap<string, number>;
  readonly #asked: readonly { readonly condition: Asked | null; readonly enabled: Asked | null }[];
  readonly #master: Asked | null;
  readonly #heard: ReadonlyMap<string, readonly Heard[]>;
  readonly #follows: readonly {
    readonly input: number;
    readonly at: ReadonlySet<number>;
    readonly follower: number;
    readonly takes: number;
    readonly heard: readonly Heard[];
  }[];
  readonly #hasChoices: boolean;
  readonly #moved: Uint8Array;
  readonly #does: Uint8Array;
  readonly #came: Uint8Array;

  constructor(programme: Programme) {
    const { inputs, ranked, controls } = programme;
    this.programme = programme;
    this.#rank = new Map(ranked.map((fn, rank) => [fn.id, rank]));
    this.#place = new Map(inputs.map((input, at) => [input.id, at]));
    this.inOrder = programme.inOrder.map((fn) => this.rankOf(fn.id));
    this.#asked = ranked.map((fn) => ({
      condition: fn.when.way === 'while' ? this.asked(fn.when.condition) : null,
      enabled: fn.enabledBy === null ? null : this.asked(fn.enabledBy),
    }));
    this.#master = controls.enabledBy === null ? null : this.asked(controls.enabledBy);
    this.#heard = listeners(programme);
    this.#follows = controls.follows.flatMap(({ input, values, follower, takes }) => {
      const leader = this.#place.get(input);
      const led = this.#place.get(follower);
      if (leader === undefined || led === undefined) return [];
      const at = new Set(values.map((value) => inputs[leader]?.values.indexOf(value) ?? -1));
      const to = inputs[led]?.values.indexOf(takes) ?? -1;
      return [
        { input: leader, at, follower: led, takes: to, heard: this.#hear(`arrives ${follower} ${takes}`) },
      ];
    });
    this.#hasChoices = ranked.some(({ choiceId }) => choiceId !== null);
    this.#moved = new Uint8Array(inputs.length);
    this.#does = new Uint8Array(ranked.length);
    this.#came = new Uint8Array(ranked.length);
    this.parts = this.#split();
  }

  /** @throws {RangeError} there is no such function */
  rankOf(id: string): number {
    const rank = this.#rank.get(id);
    if (rank === undefined) throw new RangeError(`no function '${id}'`);
    return rank;
  }

  placeOf(inputId: string): number | undefined {
    return this.#place.get(inputId);
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
      const { when } = fn;
      const enabled = this.#isEnabled(rank, fn, values, on);
      switch (when.way) {
        case 'always':
          on[rank] = enabled ? 1 : 0;
          break;
        case 'latched':
        case 'cycle':
          on[rank] = enabled && (memory[rank] ?? 0) > 0 ? 1 : 0;
          break;
        case 'while':
          if (isTimed(when)) on[rank] = (phases[rank] ?? OFF) >= ON ? 1 : 0;
          else on[rank] = enabled && this.#asked[rank]?.condition?.(values, on) === true ? 1 : 0;
      }
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
    if (this.#follows.length > 0) {
      const moved = this.#moved.fill(0);
      moved[input] = 1;
      for (const { input: leader, at, follower, takes, heard } of this.#follows) {
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

  #hear(name: string): readonly Heard[] {
    return this.#heard.get(name) ?? [];
  }

  /** A condition made ready to be asked of registers. */
  asked(c: Condition): Asked {
    switch (c.kind) {
      case 'all': {
        const of = c.of.map((part) => this.asked(part));
        return (values, on) => of.every((part) => part(values, on));
      }
      case 'any': {
        const of = c.of.map((part) => this.asked(part));
        return (values, on) => of.some((part) => part(values, on));
      }
      case 'not': {
        const of = this.asked(c.of);
        return (values, on) => !of(values, on);
      }
      case 'is': {
        const at = this.#place.get(c.input);
        const input = at === undefined ? undefined : this.programme.inputs[at];
        if (at === undefined || input === undefined) {
          const shut = c.values.includes(SHUT);
          return () => shut;
        }
        const among = Uint8Array.from(input.values, (value) => (c.values.includes(value) ? 1 : 0));
        return (values) => among[values[at] ?? 0] === 1;
      }
      case 'on': {
        const rank = this.#rank.get(c.functionId);
        return rank === undefined ? () => false : (_, on) => on[rank] === 1;
      }
    }
  }

  /** Functions that a function asks about, and those that these ask about, itself among them. */
  #cone(rank: number, into: Set<number>): void {
    const fn = this.programme.ranked[rank];
    if (fn === undefined || into.has(rank)) return;
    into.add(rank);
    for (const id of asksAbout(fn)) {
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
    return conditions.flatMap((c) => (c === null ? [] : this.#placesIn(c)));
  }

  #placesIn(c: Condition): number[] {
    return [...leavesOf(c)].flatMap((leaf) =>
      leaf.kind === 'is' ? (this.#place.get(leaf.input) ?? []) : [],
    );
  }

  /** Everything that a function depends on: functions and inputs, through those that it asks about. */
  dependsOn(rank: number): { readonly functions: ReadonlySet<number>; readonly inputs: ReadonlySet<number> } {
    const functions = new Set<number>();
    this.#cone(rank, functions);
    const { ranked } = this.programme;
    const inputs = new Set<number>();
    for (const asked of functions) {
      const fn = ranked[asked];
      if (fn !== undefined) for (const at of this.#inputsOf(fn)) inputs.add(at);
    }
    return { functions, inputs };
  }

  #split(): Part[] {
    const { inputs, ranked, controls } = this.programme;
    const group = new Groups(inputs.length + ranked.length);
    const nodeOf = (rank: number) => inputs.length + rank;
    const holdsState = (fn: ControlFunction) => mostRemembered(fn) > 0 || isTimed(fn.when);
    for (const [rank, fn] of ranked.entries()) {
      if (!holdsState(fn)) continue;
      const { functions, inputs: asked } = this.dependsOn(rank);
      for (const at of asked) group.join(nodeOf(rank), at);
      for (const other of functions) {
        const of = ranked[other];
        if (of !== undefined && holdsState(of)) group.join(nodeOf(rank), nodeOf(other));
      }
    }
    for (const [name, heard] of this.#heard) {
      const [first] = heard;
      if (first === undefined) continue;
      for (const { fn } of heard) group.join(nodeOf(first.fn), nodeOf(fn));
      const at = this.#movedBy(name);
      if (at !== undefined) group.join(nodeOf(first.fn), at);
    }
    const byChoice = new Map<string, number>();
    for (const [rank, { choiceId }] of ranked.entries()) {
      if (choiceId === null) continue;
      group.join(nodeOf(byChoice.get(choiceId) ?? rank), nodeOf(rank));
      byChoice.set(choiceId, rank);
    }
    const never = controls.never.map((rule) => ({ rule, places: this.#placesOfRule(rule) }));
    for (const { places } of never) for (const at of places) group.join(places[0] ?? at, at);
    for (const { input, follower } of this.#follows) group.join(input, follower);

    const events = this.#events();
    const roots = new Map<number, number[]>();
    for (let node = 0; node < inputs.length + ranked.length; node++) {
      const fn = ranked[node - inputs.length];
      if (node >= inputs.length && (fn === undefined || !holdsState(fn))) continue;
      const root = group.of(node);
      roots.set(root, [...(roots.get(root) ?? []), node]);
    }
    return [...roots.entries()].map(([root, nodes]): Part => {
      const stateful = nodes.filter((n) => n >= inputs.length).map((n) => n - inputs.length);
      const judged = new Set<number>();
      for (const rank of stateful) this.#cone(rank, judged);
      const variables = [
        ...nodes
          .filter((n) => n < inputs.length)
          .map((at): Variable => ({ kind: 'input', at, size: inputs[at]?.values.length ?? 1 })),
        ...stateful.map((rank) => variableOf(rank, ranked[rank])),
      ];
      const inOrder = this.inOrder.filter((rank) => judged.has(rank));
      const remembering = stateful.filter((rank) => {
        const fn = ranked[rank];
        return fn !== undefined && mostRemembered(fn) > 0;
      });
      return {
        variables,
        judged: inOrder,
        never: never
          .filter(({ places }) => places.some((at) => group.of(at) === root))
          .map(({ rule }) => ({ when: this.asked(rule.when), then: this.asked(rule.then) })),
        events: events
          .filter((e) => group.of(e.move?.input ?? nodeOf(e.ends ?? e.heard[0]?.fn ?? -1)) === root)
          .map((e) => ({ ...e, ...this.#reachOf(e, remembering, inOrder) })),
      };
    });
  }

  /** What an event can change: memories of those that hear it or forget by it, and all who ask about what moved. */
  #reachOf(
    { move, heard, ends }: BareEvent,
    remembering: readonly number[],
    judged: readonly number[],
  ): Pick<MachineEvent, 'reaches' | 'judges' | 'touches'> {
    // What follows what moves inputs that are known only then.
    if (move !== null && this.#follows.some(({ input }) => input === move.input))
      return { reaches: remembering, judges: judged, touches: [...new Set([...remembering, ...judged])] };
    const { ranked } = this.programme;
    const choices = new Set(heard.flatMap(({ fn }) => ranked[fn]?.choiceId ?? []));
    const hears = new Set(heard.map(({ fn }) => fn));
    const reaches = remembering.filter((rank) => {
      const fn = ranked[rank];
      if (fn === undefined) return false;
      const forgets = move !== null && fn.forgets && this.dependsOn(rank).inputs.has(move.input);
      return (
        hears.has(rank) || rank === ends || forgets || (fn.choiceId !== null && choices.has(fn.choiceId))
      );
    });
    const changed = new Set([...reaches, ...(ends === null ? [] : [ends])]);
    const judges = judged.filter((rank) => {
      const { functions, inputs } = this.dependsOn(rank);
      return (move !== null && inputs.has(move.input)) || [...functions].some((fn) => changed.has(fn));
    });
    return { reaches, judges, touches: [...new Set([...changed, ...judges])] };
  }

  #placesOfRule = ({ when, then }: Implication): number[] => [
    ...this.#placesIn(when),
    ...this.#placesIn(then),
  ];

  /** The input that moves as an event of that name happens. */
  #movedBy(name: string): number | undefined {
    const [kind, id = '', press] = name.split(' ');
    if (kind === 'arrives') return this.#place.get(id);
    if (kind === 'press' && press === 'short' && !this.programme.isDeliberate(id)) return this.#place.get(id);
    return undefined;
  }

  /** Every event that can change anything: inputs to each value, presses that are heard, timers. */
  #events(): BareEvent[] {
    const { programme } = this;
    const { inputs, ranked, controls } = programme;
    const moves = inputs.flatMap((input, at) =>
      input.values.map((value, i): BareEvent => {
        const pressed = value === 'down' && !programme.isDeliberate(input.id);
        return {
          event: { kind: 'arrives', input: input.id, value },
          byOperator: input.source === 'panel' || input.byHand,
          move: { input: at, value: i },
          heard: [
            ...this.#hear(`arrives ${input.id} ${value}`),
            ...(pressed ? this.#hear(`press ${input.id} short`) : []),
          ],
          ends: null,
        };
      }),
    );
    const presses = new Map<string, InputEvent>();
    for (const event of eventsOf(controls)) {
      const name = eventName(programme, event);
      if (event.kind !== 'arrives' && this.#movedBy(name) === undefined) presses.set(name, event);
    }
    const pressed = [...presses].map(([name, event]): BareEvent => ({
      event,
      byOperator: true,
      move: null,
      heard: this.#hear(name),
      ends: null,
    }));
    const timers = ranked.flatMap(({ id, when }, rank): BareEvent[] => {
      const runs = isTimed(when) || ((when.way === 'latched' || when.way === 'cycle') && when.timeoutMs > 0);
      return runs
        ? [{ event: { kind: 'ends', functionId: id }, byOperator: false, move: null, heard: [], ends: rank }]
        : [];
    });
    // Of ways that are equally short the one is told that begins with the vehicle: the key before the slide.
    const onPanels = ({ move }: BareEvent): boolean =>
      move !== null && inputs[move.input]?.source === 'panel';
    return [...moves.filter((m) => !onPanels(m)), ...moves.filter(onPanels), ...pressed, ...timers];
  }
}

const NOTHING_ON = new Uint8Array(0);

/** Who hears an event, by its name. */
function listeners(programme: Programme): ReadonlyMap<string, readonly Heard[]> {
  const heard = new Map<string, Heard[]>();
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

function variableOf(at: number, fn: ControlFunction | undefined): Variable {
  if (fn === undefined) throw new RangeError(`no function ${at}`);
  if (!isTimed(fn.when)) return { kind: 'memory', at, size: mostRemembered(fn) + 1 };
  const phases = [
    OFF,
    ...(fn.when.afterMs > 0 ? [WAITING] : []),
    ON,
    ...(fn.when.staysMs > 0 ? [STAYING] : []),
  ];
  return { kind: 'phase', at, size: phases.length, phases };
}

/** Things that belong together, joined pair by pair. */
class Groups {
  readonly #parent: number[];

  constructor(count: number) {
    this.#parent = Array.from({ length: count }, (_, i) => i);
  }

  of(node: number): number {
    let root = node;
    while (this.#parent[root] !== undefined && this.#parent[root] !== root) root = this.#parent[root] ?? root;
    return root;
  }

  join(a: number, b: number): void {
    this.#parent[this.of(a)] = this.of(b);
  }
}
