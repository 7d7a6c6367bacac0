import { onsOf, type ActiveFunction } from '../design/controls.ts';
import type { Condition } from '../design/condition.ts';
import { leavesOf } from '../design/condition.ts';
import type { ControlFunction } from '../design/functions.ts';
import { eventsOf } from '../design/inputs.ts';
import { eventName } from '../controls/program.ts';
import type { Part, Variable } from './parts.ts';
import type { CompiledProgram } from './wired.ts';

/** Where the bits of a variable of the program stand: the present ones, and after each of them the next one. */
export interface Bits {
  readonly variable: Variable;
  /**
   * Of the present value, the lowest bit first, which stands at the bottom, so that what is picked is a small value; the next
   * value's bit stands one level below each.
   */
  readonly levels: readonly number[];
}

/** The order of all variables of a program's diagrams. */
export interface Order {
  readonly levels: number;
  readonly inputs: readonly (Bits | undefined)[];
  /** By rank: the memory or phase of a function; undefined where it has none. */
  readonly functions: readonly (Bits | undefined)[];
  /** By way of being on: its level. */
  readonly ons: ReadonlyMap<ActiveFunction, number>;
}

/** An input that more than this share of the functions name stands above all others: below it the rest falls apart. */
const GATE_SHARE = 0.3;
/** Rounds of the ordering. */
const ROUNDS = 60;

/**
 * Orders the variables of a program: gates first, then by centre of gravity (FORCE; Aloul, Markov and Sakallah 2003) over
 * what belongs together.
 */
export function orderOf(wired: CompiledProgram, parts: readonly Part[]): Order {
  const { inputs, ranked } = wired.programme;
  const nodes = inputs.length + ranked.length;
  const variables = new Map<number, Variable>();
  for (const { variables: own } of parts)
    for (const one of own) variables.set(one.kind === 'input' ? one.at : inputs.length + one.at, one);
  const gates = gatesOf(wired);
  const edges = edgesOf(wired).map((edge) => edge.filter((node) => !gates.has(node)));
  const inOrder = [...gates, ...byGravity(nodes, edges).filter((node) => !gates.has(node))];
  const bits: (Bits | undefined)[] = [];
  const ons = new Map<ActiveFunction, number>();
  let level = 0;
  for (const node of inOrder) {
    const variable = variables.get(node);
    if (variable !== undefined) {
      const count = Math.ceil(Math.log2(variable.size));
      const from = level;
      bits[node] = {
        variable,
        levels: Array.from({ length: count }, (_, bit) => from + 2 * (count - 1 - bit)),
      };
      level += 2 * count;
    }
    const fn = ranked[node - inputs.length];
    for (const on of fn === undefined ? [] : onsOf(fn)) ons.set(on, level++);
  }
  return {
    levels: level,
    inputs: inputs.map((_, at) => bits[at]),
    functions: ranked.map((_, rank) => bits[inputs.length + rank]),
    ons,
  };
}

const conditionsIn = (fn: ControlFunction): Condition[] =>
  [fn.when.way === 'while' ? fn.when.condition : null, fn.enabledBy].filter((c) => c !== null);

/** Inputs that many functions name, the master switch of the program counted for all that heed it. */
function gatesOf(wired: CompiledProgram): Set<number> {
  const { inputs, ranked, controls } = wired.programme;
  const named = inputs.map(() => 0);
  for (const fn of ranked) {
    const master = fn.withoutMaster || controls.enabledBy === null ? [] : [controls.enabledBy];
    const places = new Set([...conditionsIn(fn), ...master].flatMap((c) => wired.placesIn(c)));
    for (const at of places) named[at] = (named[at] ?? 0) + 1;
  }
  return new Set(inputs.flatMap((_, at) => ((named[at] ?? 0) > GATE_SHARE * ranked.length ? [at] : [])));
}

/** What belongs together: inputs by their place, functions by their rank after all inputs. */
function edgesOf(wired: CompiledProgram): number[][] {
  const { programme } = wired;
  const { inputs, ranked, controls } = programme;
  const nodeOf = (rank: number): number => inputs.length + rank;
  const asks = (c: Condition): number[] =>
    [...leavesOf(c)].flatMap((leaf) => {
      const at = leaf.kind === 'is' ? wired.placeOf(leaf.input) : wired.rankOf(leaf.functionId);
      return at === undefined ? [] : [leaf.kind === 'is' ? at : nodeOf(at)];
    });
  const choices = new Map<string, number[]>();
  for (const [rank, { choiceId }] of ranked.entries())
    if (choiceId !== null) choices.set(choiceId, [...(choices.get(choiceId) ?? []), nodeOf(rank)]);
  const heard = eventsOf(controls).map((event) => {
    const name = eventName(programme, event);
    const moved = wired.movedBy(name);
    return [...(moved === undefined ? [] : [moved]), ...wired.hear(name).map(({ fn }) => nodeOf(fn))];
  });
  return [
    ...ranked.map((fn, rank) => [nodeOf(rank), ...conditionsIn(fn).flatMap(asks)]),
    ...choices.values(),
    ...heard,
    ...controls.never.map(({ when, then }) => [...asks(when), ...asks(then)]),
    ...wired.follows.map(({ input, follower }) => [input, follower]),
  ].map((edge) => [...new Set(edge)]);
}

/** Nodes in an order in which what belongs together stands close. */
function byGravity(nodes: number, edges: readonly (readonly number[])[]): number[] {
  const told = edges.filter((edge) => edge.length > 1);
  let order = Array.from({ length: nodes }, (_, node) => node);
  let best = order;
  let least = Infinity;
  for (let round = 0; round <= ROUNDS; round++) {
    const placeOf = new Float64Array(nodes);
    for (const [place, node] of order.entries()) placeOf[node] = place;
    const places = told.map((edge) => edge.map((node) => placeOf[node] ?? 0));
    const span = places.reduce((sum, of) => sum + Math.max(...of) - Math.min(...of), 0);
    if (span < least) [least, best] = [span, order];
    const pull = new Float64Array(nodes);
    const weight = new Float64Array(nodes);
    for (const [i, edge] of told.entries()) {
      const of = places[i] ?? [];
      const centre = of.reduce((sum, place) => sum + place, 0) / of.length;
      for (const node of edge) {
        pull[node] = (pull[node] ?? 0) + centre;
        weight[node] = (weight[node] ?? 0) + 1;
      }
    }
    const wanted = (node: number): number =>
      (weight[node] ?? 0) === 0 ? (placeOf[node] ?? 0) : (pull[node] ?? 0) / (weight[node] ?? 1);
    order = order.toSorted((a, b) => wanted(a) - wanted(b) || (placeOf[a] ?? 0) - (placeOf[b] ?? 0));
  }
  return best;
}
