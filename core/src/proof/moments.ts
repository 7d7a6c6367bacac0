import type { ProgrammeEvent } from '../controls/programme.ts';
import { leavesOf, type Condition } from '../design/condition.ts';
import { onKey, type On } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { holds } from '../design/programmeFaults.ts';
import type { Registers } from './machine.ts';
import { Numbering } from './numbering.ts';
import { isResting } from './parts.ts';
import type { Reach, ReachedPart } from './reach.ts';
import type { Depends } from './wired.ts';

/** No more combinations of parts are looked through; what lies beyond is then not known. */
export const MOST_COMBINED = 3_000_000;

/** What moments are told apart by besides what is on: a condition, or what is asked of memories and phases. */
export type Question = Condition | ((r: Registers) => boolean);

/** No more moments are kept; what else there is, is then not known. */
const MOST_MOMENTS = 400_000;

/** States in which the same functions are on and the same of some conditions hold: one of them, the nearest to rest. */
export interface Moment {
  /** Strongest first; each cycle with its number. */
  readonly on: readonly On[];
  /** Equal for moments in which the same is on. */
  readonly picture: number;
  /** Of the conditions asked, in their order. */
  readonly holds: readonly boolean[];
  /** How many events it takes to get there. */
  readonly depth: number;
  /** Where each part stands: the place of its state among those reached. */
  readonly places: readonly number[];
}

export interface Moments {
  readonly reach: Reach;
  /** The nearest first. */
  readonly all: readonly Moment[];
  /** How many differ in what is on, each cycle with its number. */
  readonly pictures: number;
  /** Whether these are all; else there may be more. */
  readonly whole: boolean;
}

/** Whether no timer of a programme runs. */
export const isQuiet =
  ({ programme: { ranked } }: Reach['machine']) =>
  ({ memory, phases }: Registers): boolean =>
    ranked.every(({ when }, rank) =>
      when.way === 'latched' || when.way === 'cycle'
        ? when.timeoutMs === 0 || memory[rank] === 0
        : isResting(phases[rank] ?? 0),
    );

/** States of a part that differ in what functions and conditions ask: of each kind the nearest. */
interface Faces {
  readonly index: number;
  readonly places: readonly number[];
}

export interface MomentOptions {
  /** No more combinations of parts are looked through. */
  readonly most?: number;
  /** Whether a function tells moments apart; all do when not said. */
  readonly matters?: (fn: ControlFunction) => boolean;
}

/**
 * Every combination of functions that can be on together, told apart by some conditions besides.
 * @param asked - about inputs and functions
 */
export function momentsOf(
  reach: Reach,
  asked: readonly Question[] = [],
  { most = MOST_COMBINED, matters = () => true }: MomentOptions = {},
): Moments {
  const { machine } = reach;
  const { programme } = machine;
  const { ranked } = programme;
  const conditions = asked.filter((question) => typeof question !== 'function');
  const ranks = [...ranked.keys()].filter((rank) => {
    const fn = ranked[rank];
    return fn !== undefined && matters(fn);
  });
  // What is asked of registers may look at all of them.
  const told =
    conditions.length < asked.length ? new Set(ranked.keys()) : machine.wired.through(ranks, conditions);
  const classes = classesOf(programme, told, conditions);
  const faces = reach.parts
    .map((part, index): Faces => ({ index, places: facesOf(machine.blank(), part, classes, told) }))
    .toSorted((a, b) => a.places.length - b.places.length);
  const several = faces.filter(({ places }) => places.length > 1);
  const numberings = reach.parts.map(({ part }) => new Numbering(part));
  const r = machine.blank();
  const places = reach.parts.map(() => 0);
  for (const [i, part] of reach.parts.entries()) numberings[i]?.into(part.states[0] ?? 0, r);
  const ask = asked.map((question): ((now: Registers) => boolean) => {
    if (typeof question === 'function') return question;
    const holdsNow = machine.wired.asked(question);
    return ({ values, on }) => holdsNow(values, on);
  });
  const steps = stepsOf(reach, several, ranks, asked, ask);
  const textOfOn = onTexts(ranks, ranked);
  const onsOf = onNames(ranked);
  // What is on is the same in all of a picture where every function tells pictures apart.
  const onOf: On[][] = [];
  const onNow = (picture: number): On[] =>
    ranks.length < ranked.length ? onsOf(r) : (onOf[picture] ??= onsOf(r));
  const found = new Map<number | string, Moment>();
  const pictures = new Map<number | string, number>();
  const truthsOf = new Map<number | string, readonly boolean[]>();
  const counted = ask.length <= MOST_BITS_OF_TRUTH;
  let combined = 0;
  let whole = reach.whole;

  const look = (depth: number, on: number, truths: number): void => {
    combined++;
    const asOn = on < EXACT ? on : textOfOn(r);
    const picture = pictures.get(asOn) ?? pictures.size;
    pictures.set(asOn, picture);
    const truth = counted ? truths : ask.map((holdsNow) => Number(holdsNow(r))).join('');
    const key = typeof truth === 'number' ? picture * 2 ** MOST_BITS_OF_TRUTH + truth : `${picture} ${truth}`;
    const known = found.get(key);
    if (known !== undefined && known.depth <= depth) return;
    const holdsHere = truthsOf.get(truth) ?? ask.map((holdsNow) => holdsNow(r));
    truthsOf.set(truth, holdsHere);
    found.set(key, { on: onNow(picture), picture, holds: holdsHere, depth, places: places.slice() });
  };
  /** Judges what is settled by so many parts, and goes on with the next. */
  const combine = (at: number, depth: number, on: number, truths: number): void => {
    const step = steps[at];
    if (step === undefined) return;
    machine.judge(step.judges, r);
    let [onNext, truthsNext] = [on, truths];
    for (const { rank, isCycle, weight } of step.digits)
      if (r.on[rank] === 1) onNext += weight * (isCycle ? (r.memory[rank] ?? 0) : 1);
    for (const { holdsNow, bit } of step.asks) if (holdsNow(r)) truthsNext += bit;
    const part = several[at];
    if (part === undefined) {
      look(depth, onNext, truthsNext);
      return;
    }
    const reached = reach.parts[part.index];
    const numbering = numberings[part.index];
    if (reached === undefined || numbering === undefined) return;
    for (const place of part.places) {
      if (combined >= most || found.size >= MOST_MOMENTS) {
        whole = false;
        return;
      }
      numbering.into(reached.states[place] ?? 0, r);
      places[part.index] = place;
      combine(at + 1, depth + (reached.depths[place] ?? 0), onNext, truthsNext);
    }
  };
  combine(0, 0, 0, 0);
  const all = [...found.values()].toSorted((a, b) => a.depth - b.depth);
  return { reach, all, pictures: pictures.size, whole };
}

/** What can be told once some of the parts stand where they stand, and could not be told with one fewer. */
interface Step {
  /** Functions to judge, each after those that it asks about. */
  readonly judges: readonly number[];
  /** What these add to the number of all that is on. */
  readonly digits: readonly { readonly rank: number; readonly isCycle: boolean; readonly weight: number }[];
  /** Questions, and what each adds to the number of all that hold. */
  readonly asks: readonly { readonly holdsNow: (now: Registers) => boolean; readonly bit: number }[];
}

/** Step by step what each part that is combined settles: at the first, none of them. */
function stepsOf(
  { machine, parts }: Reach,
  several: readonly Faces[],
  ranks: readonly number[],
  asked: readonly Question[],
  ask: readonly ((now: Registers) => boolean)[],
): Step[] {
  const { programme, wired } = machine;
  const stepOf = { input: new Map<number, number>(), function: new Map<number, number>() };
  for (const [at, { index }] of several.entries())
    for (const variable of parts[index]?.part.variables ?? [])
      stepOf[variable.kind === 'input' ? 'input' : 'function'].set(variable.at, at + 1);
  const settledAt = ({ functions, inputs }: Depends): number =>
    Math.max(
      0,
      ...[...functions].map((rank) => stepOf.function.get(rank) ?? 0),
      ...[...inputs].map((at) => stepOf.input.get(at) ?? 0),
    );
  const steps = Array.from({ length: several.length + 1 }, () => ({
    judges: [] as number[],
    digits: [] as Step['digits'][number][],
    asks: [] as Step['asks'][number][],
  }));
  const stepOfRank = new Map(wired.inOrder.map((rank) => [rank, settledAt(wired.dependsOn(rank))]));
  for (const rank of wired.inOrder) steps[stepOfRank.get(rank) ?? 0]?.judges.push(rank);
  let weight = 1;
  for (const rank of ranks.toReversed()) {
    const fn = programme.ranked[rank];
    const isCycle = fn?.when.way === 'cycle';
    steps[stepOfRank.get(rank) ?? 0]?.digits.push({ rank, isCycle, weight });
    weight *= isCycle ? fn.shows.length + 1 : 2;
  }
  for (const [i, question] of asked.entries()) {
    const holdsNow = ask[i];
    // What is asked of registers may look at all of them.
    const at =
      typeof question === 'function' ? several.length : settledAt(wired.conditionDependsOn(question));
    if (holdsNow !== undefined) steps[at]?.asks.push({ holdsNow, bit: 2 ** (asked.length - 1 - i) });
  }
  return steps;
}

/** The shortest sequence of events to a moment. */
export const wayTo = ({ parts }: Reach, { places }: Pick<Moment, 'places'>): ProgrammeEvent[] =>
  parts.flatMap((part, i) => part.wayTo(places[i] ?? 0));

/** The value of every input at a moment. */
export function valuesAt(reach: Reach, { places }: Pick<Moment, 'places'>): ReadonlyMap<string, string> {
  const { machine, parts } = reach;
  const r = registersAt(reach, places);
  return new Map(
    parts.flatMap(({ part }) =>
      part.variables.flatMap((variable): [string, string][] => {
        const input = variable.kind === 'input' ? machine.programme.inputs[variable.at] : undefined;
        const value = input?.values[r.values[variable.at] ?? 0];
        return input === undefined || value === undefined ? [] : [[input.id, value]];
      }),
    ),
  );
}

/** The registers of a moment, judged. */
export function registersAt({ machine, parts }: Reach, places: readonly number[]): Registers {
  const r = machine.blank();
  for (const [i, part] of parts.entries()) new Numbering(part.part).into(part.states[places[i] ?? 0] ?? 0, r);
  machine.judge(machine.wired.inOrder, r);
  return r;
}

/** So many truths stand beside the number of a picture in one whole number; more are told as text. */
const MOST_BITS_OF_TRUTH = 30;

/** Whole numbers are exact below this. */
const EXACT = Number.MAX_SAFE_INTEGER;

/** Which of some functions are on, as a text; a cycle with its number. */
function onTexts(ranks: readonly number[], ranked: readonly ControlFunction[]): (r: Registers) => string {
  const isCycle = ranks.map((rank) => ranked[rank]?.when.way === 'cycle');
  return ({ on, memory }) =>
    ranks.map((rank, i) => (on[rank] !== 1 ? 0 : isCycle[i] === true ? (memory[rank] ?? 0) : 1)).join('.');
}

/** What is on by name, the strongest first; each cycle with its number. */
export function onNames(ranked: readonly ControlFunction[]): (r: Registers) => On[] {
  const names = ranked.map(({ id, when, shows }) => ({
    byNumber: when.way === 'cycle' ? Array.from(shows, (_, i) => onKey(id, i + 1)) : [],
    name: onKey(id, 1),
  }));
  return ({ on, memory }) => {
    const ons: On[] = [];
    for (const [rank, { byNumber, name }] of names.entries())
      if (on[rank] === 1) ons.push(byNumber[(memory[rank] ?? 1) - 1] ?? name);
    return ons;
  };
}

/**
 * By input and value: values that no function and no condition asked tells apart have one number.
 * @param told - functions that are told apart, by rank
 */
function classesOf(
  { inputs, controls, ranked }: Reach['machine']['programme'],
  told: ReadonlySet<number>,
  asked: readonly Condition[],
): readonly (readonly number[])[] {
  const conditions = [
    ...ranked.flatMap((fn, rank) =>
      !told.has(rank)
        ? []
        : [
            ...(fn.when.way === 'while' ? [fn.when.condition] : []),
            ...(fn.enabledBy === null ? [] : [fn.enabledBy]),
          ],
    ),
    ...(controls.enabledBy === null ? [] : [controls.enabledBy]),
    ...asked,
  ];
  const leaves = conditions.flatMap((c) => [...leavesOf(c)]).filter((leaf) => leaf.kind === 'is');
  return inputs.map(({ id, values }) => {
    const mine = leaves.filter((leaf) => leaf.input === id);
    const known = new Map<string, number>();
    return values.map((value) => {
      const told = mine
        .map((leaf) => (holds(leaf, new Map([[id, value]]), () => false) ? '1' : '0'))
        .join('');
      const number = known.get(told) ?? known.size;
      known.set(told, number);
      return number;
    });
  });
}

function facesOf(
  r: Registers,
  { part, states, count }: ReachedPart,
  classes: readonly (readonly number[])[],
  functions: ReadonlySet<number>,
): number[] {
  const numbering = new Numbering(part);
  const seen = new Set<string>();
  const places: number[] = [];
  const told = part.variables.filter((v) =>
    v.kind === 'input' ? new Set(classes[v.at]).size > 1 : functions.has(v.at),
  );
  if (told.length === 0) return [0];
  for (let place = 0; place < count; place++) {
    numbering.into(states[place] ?? 0, r);
    let key = '';
    for (const variable of told)
      switch (variable.kind) {
        case 'input':
          key += String.fromCharCode(classes[variable.at]?.[r.values[variable.at] ?? 0] ?? 0);
          break;
        case 'memory':
          key += String.fromCharCode(r.memory[variable.at] ?? 0);
          break;
        case 'phase':
          key += String.fromCharCode(r.phases[variable.at] ?? 0);
      }
    if (seen.has(key)) continue;
    seen.add(key);
    places.push(place);
  }
  return places;
}
