import { eventName, isTimed, mostRemembered, type Phase, type ProgramEvent } from '../controls/program.ts';
import type { InputEvent } from '../design/condition.ts';
import type { ControlFunction } from '../design/functions.ts';
import { eventsOf } from '../design/inputs.ts';
import type { Implication } from '../design/controls.ts';
import type { EventSubscription, CompiledProgram } from './wired.ts';

/** Where a `while` with timers stands, as numbers; those it may have depend on its timers. */
export const OFF = 0;
export const WAITING = 1;
export const ON = 2;
export const STAYING = 3;

/** What they are called, by their number. */
export const PHASES: readonly Phase[] = ['off', 'waiting', 'on', 'staying'];

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
  readonly event: ProgramEvent;
  /** An operator does it: on a control, or on an input that is worked by hand. */
  readonly byOperator: boolean;
  readonly move: { readonly input: number; readonly value: number } | null;
  readonly heard: readonly EventSubscription[];
  /** The function whose timer ends; null for another event. */
  readonly ends: number | null;
  /** The functions whose memory it may change, strongest first. */
  readonly reaches: readonly number[];
  /** The functions that must be judged after it, each after those that it asks about. */
  readonly judges: readonly number[];
}

/** An event before it is known what it reaches. */
type BareEvent = Omit<MachineEvent, 'reaches' | 'judges'>;

/** Variables that depend on each other, and on no others: their events move nothing else. */
export interface Part {
  readonly variables: readonly Variable[];
  /** The functions that must be judged to go on from a state, each after those that it asks about. */
  readonly judged: readonly number[];
  /** What may not be together of its inputs. */
  readonly never: readonly Implication[];
  readonly events: readonly MachineEvent[];
}

/** The parts of a programme: what does not depend on each other is walked apart. */
export function splitInParts(wired: CompiledProgram): Part[] {
  const { inputs, ranked, controls } = wired.programme;
  const group = new Groups(inputs.length + ranked.length);
  const nodeOf = (rank: number) => inputs.length + rank;
  const holdsState = (fn: ControlFunction) => mostRemembered(fn) > 0 || isTimed(fn.when);
  for (const [rank, fn] of ranked.entries()) {
    if (!holdsState(fn)) continue;
    const { functions, inputs: asked } = wired.dependsOn(rank);
    for (const at of asked) group.join(nodeOf(rank), at);
    for (const other of functions) {
      const of = ranked[other];
      if (of !== undefined && holdsState(of)) group.join(nodeOf(rank), nodeOf(other));
    }
  }
  for (const [name, heard] of wired.heard) {
    const [first] = heard;
    if (first === undefined) continue;
    for (const { fn } of heard) group.join(nodeOf(first.fn), nodeOf(fn));
    const at = wired.movedBy(name);
    if (at !== undefined) group.join(nodeOf(first.fn), at);
  }
  const byChoice = new Map<string, number>();
  for (const [rank, { choiceId }] of ranked.entries()) {
    if (choiceId === null) continue;
    group.join(nodeOf(byChoice.get(choiceId) ?? rank), nodeOf(rank));
    byChoice.set(choiceId, rank);
  }
  const never = controls.never.map((rule) => ({
    rule,
    places: [...wired.placesIn(rule.when), ...wired.placesIn(rule.then)],
  }));
  for (const { places } of never) for (const at of places) group.join(places[0] ?? at, at);
  for (const { input, follower } of wired.follows) group.join(input, follower);

  const events = eventsOfProgramme(wired);
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
    for (const rank of stateful) for (const fn of wired.dependsOn(rank).functions) judged.add(fn);
    const variables = [
      ...nodes
        .filter((n) => n < inputs.length)
        .map((at): Variable => ({ kind: 'input', at, size: inputs[at]?.values.length ?? 1 })),
      ...stateful.map((rank) => variableOf(rank, ranked[rank])),
    ];
    const inOrder = wired.inOrder.filter((rank) => judged.has(rank));
    const remembering = stateful.filter((rank) => {
      const fn = ranked[rank];
      return fn !== undefined && mostRemembered(fn) > 0;
    });
    return {
      variables,
      judged: inOrder,
      never: never.filter(({ places }) => places.some((at) => group.of(at) === root)).map(({ rule }) => rule),
      events: events
        .filter((e) => group.of(e.move?.input ?? nodeOf(e.ends ?? e.heard[0]?.fn ?? -1)) === root)
        .map((e) => ({ ...e, ...reachOf(wired, e, remembering, inOrder) })),
    };
  });
}

/** What an event can change: memories of those that hear it or forget by it, and all who ask about what moved. */
function reachOf(
  wired: CompiledProgram,
  { move, heard, ends }: BareEvent,
  remembering: readonly number[],
  judged: readonly number[],
): Pick<MachineEvent, 'reaches' | 'judges'> {
  // What follows what moves inputs that are known only then.
  if (move !== null && wired.follows.some(({ input }) => input === move.input))
    return { reaches: remembering, judges: judged };
  const { ranked } = wired.programme;
  const choices = new Set(heard.flatMap(({ fn }) => ranked[fn]?.choiceId ?? []));
  const hears = new Set(heard.map(({ fn }) => fn));
  const reaches = remembering.filter((rank) => {
    const fn = ranked[rank];
    if (fn === undefined) return false;
    const forgets = move !== null && fn.forgets && wired.dependsOn(rank).inputs.has(move.input);
    return hears.has(rank) || rank === ends || forgets || (fn.choiceId !== null && choices.has(fn.choiceId));
  });
  const changed = new Set([...reaches, ...(ends === null ? [] : [ends])]);
  const judges = judged.filter((rank) => {
    const { functions, inputs } = wired.dependsOn(rank);
    return (move !== null && inputs.has(move.input)) || [...functions].some((fn) => changed.has(fn));
  });
  return { reaches, judges };
}

/** Every event that can change anything: inputs to each value, presses that are heard, timers. */
function eventsOfProgramme(wired: CompiledProgram): BareEvent[] {
  const { programme } = wired;
  const { inputs, ranked, controls } = programme;
  const moves = inputs.flatMap((input, at) =>
    input.values.map((value, i): BareEvent => {
      const pressed = value === 'down' && !programme.isDeliberate(input.id);
      return {
        event: { kind: 'arrives', input: input.id, value },
        byOperator: input.source === 'panel' || input.byHand,
        move: { input: at, value: i },
        heard: [
          ...wired.hear(`arrives ${input.id} ${value}`),
          ...(pressed ? wired.hear(`press ${input.id} short`) : []),
        ],
        ends: null,
      };
    }),
  );
  const presses = new Map<string, InputEvent>();
  for (const event of eventsOf(controls)) {
    const name = eventName(programme, event);
    if (event.kind !== 'arrives' && wired.movedBy(name) === undefined) presses.set(name, event);
  }
  const pressed = [...presses].map(([name, event]): BareEvent => ({
    event,
    byOperator: true,
    move: null,
    heard: wired.hear(name),
    ends: null,
  }));
  const timers = ranked.flatMap(({ id, when }, rank): BareEvent[] => {
    const runs = isTimed(when) || ((when.way === 'latched' || when.way === 'cycle') && when.timeoutMs > 0);
    return runs
      ? [{ event: { kind: 'ends', functionId: id }, byOperator: false, move: null, heard: [], ends: rank }]
      : [];
  });
  // Of ways that are equally short the one is told that begins with the vehicle: the key before the slide.
  const onPanels = ({ move }: BareEvent): boolean => move !== null && inputs[move.input]?.source === 'panel';
  return [...moves.filter((m) => !onPanels(m)), ...moves.filter(onPanels), ...pressed, ...timers];
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
