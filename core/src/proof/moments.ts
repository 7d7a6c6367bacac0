import type { ProgrammeEvent } from '../controls/programme.ts';
import { leavesOf, type Condition } from '../design/condition.ts';
import { onKey, type On } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { holds } from '../design/programmeFaults.ts';
import type { Registers } from './machine.ts';
import { Numbering } from './numbering.ts';
import { isResting } from './parts.ts';
import type { Reach, ReachedPart } from './reach.ts';

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
  const conditions = asked.filter((question) => typeof question !== 'function');
  const classes = classesOf(programme, conditions);
  const faces = reach.parts
    .map((part, index): Faces => ({ index, places: facesOf(machine.blank(), part, classes) }))
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
  const found = new Map<number | string, Moment>();
  const pictures = new Map<number | string, number>();
  let combined = 0;
  let whole = reach.whole;

  const ranks = [...programme.ranked.keys()].filter((rank) => {
    const fn = programme.ranked[rank];
    return fn !== undefined && matters(fn);
  });
  const onsOf = onNames(programme.ranked);
  const keyOfOn = onKeys(ranks, programme.ranked);
  // What is on is the same in all of a picture where every function tells pictures apart.
  const onOf: On[][] = [];
  const onNow = (picture: number): On[] =>
    ranks.length < programme.ranked.length ? onsOf(r) : (onOf[picture] ??= onsOf(r));
  const truthsOf = new Map<number | string, readonly boolean[]>();

  const look = (depth: number): void => {
    combined++;
    machine.judge(machine.wired.inOrder, r);
    const on = keyOfOn(r);
    const picture = pictures.get(on) ?? pictures.size;
    pictures.set(on, picture);
    const truth = truthKey(ask, r);
    const key = typeof truth === 'number' ? picture * 2 ** MOST_BITS_OF_TRUTH + truth : `${picture} ${truth}`;
    const known = found.get(key);
    if (known !== undefined && known.depth <= depth) return;
    const truths = truthsOf.get(truth) ?? ask.map((holdsNow) => holdsNow(r));
    truthsOf.set(truth, truths);
    found.set(key, { on: onNow(picture), picture, holds: truths, depth, places: places.slice() });
  };
  const combine = (at: number, depth: number): void => {
    const part = several[at];
    if (part === undefined) {
      look(depth);
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
      combine(at + 1, depth + (reached.depths[place] ?? 0));
    }
  };
  combine(0, 0);
  const all = [...found.values()].toSorted((a, b) => a.depth - b.depth);
  return { reach, all, pictures: pictures.size, whole };
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

/** Which of some questions hold, as a key. */
function truthKey(ask: readonly ((now: Registers) => boolean)[], r: Registers): number | string {
  if (ask.length > MOST_BITS_OF_TRUTH) return ask.map((holdsNow) => Number(holdsNow(r))).join('');
  let bits = 0;
  for (const holdsNow of ask) bits = bits * 2 + Number(holdsNow(r));
  return bits;
}

/** Whole numbers are exact below this. */
const EXACT = Number.MAX_SAFE_INTEGER;

/** Which of some functions are on, as a key; a cycle with its number. A whole number where that holds them all. */
function onKeys(
  ranks: readonly number[],
  ranked: readonly ControlFunction[],
): (r: Registers) => number | string {
  const told = ranks.map((rank) => {
    const fn = ranked[rank];
    const isCycle = fn?.when.way === 'cycle';
    return { rank, isCycle, radix: isCycle ? fn.shows.length + 1 : 2 };
  });
  const fits = told.reduce((all, { radix }) => all * radix, 1) <= EXACT;
  const digit = ({ on, memory }: Registers, { rank, isCycle }: (typeof told)[number]): number =>
    on[rank] !== 1 ? 0 : isCycle ? (memory[rank] ?? 0) : 1;
  if (!fits) return (r) => told.map((one) => digit(r, one)).join('.');
  return (r) => {
    let key = 0;
    for (const one of told) key = key * one.radix + digit(r, one);
    return key;
  };
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

/** By input and value: values that no function and no condition asked tells apart have one number. */
function classesOf(
  { inputs, controls }: Reach['machine']['programme'],
  asked: readonly Condition[],
): readonly (readonly number[])[] {
  const conditions = [
    ...controls.functions.flatMap((fn) => [
      ...(fn.when.way === 'while' ? [fn.when.condition] : []),
      ...(fn.enabledBy === null ? [] : [fn.enabledBy]),
    ]),
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
): number[] {
  const numbering = new Numbering(part);
  const seen = new Set<string>();
  const places: number[] = [];
  const told = part.variables.filter((v) => v.kind !== 'input' || new Set(classes[v.at]).size > 1);
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
