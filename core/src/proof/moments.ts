import type { ProgrammeEvent } from '../controls/programme.ts';
import { leavesOf, type Condition } from '../design/condition.ts';
import { onKey, type On } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { holds } from '../design/programmeFaults.ts';
import { Rows, RowTable, type Classes } from './bits.ts';
import type { Registers } from './machine.ts';
import { Numbering } from './numbering.ts';
import { OnWords } from './onWords.ts';
import { isResting, type Variable } from './parts.ts';
import type { Reach, ReachedPart } from './reach.ts';
import type { Depends } from './wired.ts';

/** No more combinations of parts are looked through; what lies beyond is then not known. */
export const MOST_COMBINED = 3_000_000;

/** What moments are told apart by besides what is on: a condition, or what is asked of memories and phases. */
export type Question = Condition | ((r: Registers) => boolean);

/** No more moments are kept; what else there is, is then not known. */
const MOST_MOMENTS = 400_000;

/** States in which the same functions are on and the same of some conditions hold: one of them, the nearest to rest. */
export class Moment {
  /** Equal for moments in which the same is on. */
  readonly picture: number;
  /** How many events it takes to get there. */
  readonly depth: number;
  readonly #told: Told;
  readonly #at: number;
  #on: readonly On[] | null = null;

  constructor(told: Told, at: number) {
    this.#told = told;
    this.#at = at;
    this.picture = told.pictureOf[at] ?? 0;
    this.depth = told.depths[at] ?? 0;
  }

  /** Strongest first; each cycle with its number. */
  get on(): readonly On[] {
    this.#on ??= this.#told.onAt(this.#at);
    return this.#on;
  }

  /** Of the conditions asked, in their order. */
  get holds(): readonly boolean[] {
    return this.#told.truthAt(this.#at);
  }

  /** Where each part stands: the place of its state among those reached. */
  get places(): readonly number[] {
    return this.#told.placesAt(this.#at);
  }
}

export interface Moments {
  readonly reach: Reach;
  /** The nearest first. */
  readonly all: readonly Moment[];
  /** How many differ in what is on, each cycle with its number. */
  readonly pictures: number;
  /** Whether these are all; else there may be more. */
  readonly whole: boolean;
  /** The moments as rows: what is on, as far as it tells them apart, and then which conditions hold, a bit each. */
  readonly rows: Rows;
  /** Where functions stand in the rows. */
  readonly onWords: OnWords;
  /** The moments sorted by which conditions hold. */
  readonly truths: Classes;
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
    .toSorted((a, b) => b.places.length - a.places.length);
  const several = faces.filter(({ places }) => places.length > 1);
  const numberings = several.map(({ index }) => {
    const part = reach.parts[index]?.part;
    return part === undefined ? null : new Numbering(part);
  });
  const r = machine.blank();
  for (const { part, states } of reach.parts) new Numbering(part).into(states[0] ?? 0, r);
  const ask = asked.map((question): ((now: Registers) => boolean) => {
    if (typeof question === 'function') return question;
    const holdsNow = machine.wired.asked(question);
    return ({ values, on }) => holdsNow(values, on);
  });
  const steps = stepsOf(reach, several, ranks, asked, ask);
  const onWords = new OnWords(ranked, ranks);
  const width = onWords.width + Math.ceil(asked.length / 32);
  const found = new Found(width, several.length);
  /** What is on and holds by the parts that stand so far. */
  const row = steps.map(() => new Uint32Array(width));
  const places = several.map(() => 0);
  let combined = 0;
  let whole = reach.whole;

  /** Judges what is settled by so many parts, and goes on with the next. */
  const combine = (at: number, depth: number): void => {
    const step = steps[at];
    const now = row[at];
    if (step === undefined || now === undefined) return;
    machine.judge(step.judges, r);
    const before = row[at - 1];
    for (let w = 0; w < width; w++) now[w] = before?.[w] ?? 0;
    for (const rank of step.tells) onWords.put(rank, r, now);
    for (const { holdsNow, place } of step.asks) {
      const word = onWords.width + (place >>> 5);
      if (holdsNow(r)) now[word] = (now[word] ?? 0) | (1 << (place & 31));
    }
    const part = several[at];
    if (part === undefined) {
      combined++;
      found.note(now, depth, places);
      return;
    }
    const reached = reach.parts[part.index];
    const numbering = numberings[at];
    if (reached === undefined) return;
    for (const place of part.places) {
      if (combined >= most || found.count >= MOST_MOMENTS) {
        whole = false;
        return;
      }
      numbering?.into(reached.states[place] ?? 0, r);
      places[at] = place;
      combine(at + 1, depth + (reached.depths[place] ?? 0));
    }
  };
  combine(0, 0);
  const known = new Told(reach, found.nearestFirst(), {
    several: several.map(({ index }) => index),
    onWords,
    asked: asked.length,
    // What does not tell moments apart may be on or off in moments alike.
    onInRows: ranks.length === ranked.length,
  });
  const all = Array.from(known.depths, (_, at) => new Moment(known, at));
  const { pictures, rows, truths } = known;
  return { reach, all, pictures, whole, rows, onWords, truths };
}

/** What was found so far, each kind once and by the shortest way. */
class Found {
  count = 0;
  readonly #width: number;
  readonly #parts: number;
  readonly #table: RowTable;
  #words = new Uint32Array(0);
  #depths = new Int32Array(0);
  #places = new Uint32Array(0);

  constructor(width: number, parts: number) {
    this.#width = width;
    this.#parts = parts;
    this.#table = new RowTable(width, new Uint32Array(width).fill(0xffffffff));
  }

  /** Notes what is on and holds somewhere, unless it is known by a way as short. */
  note(row: Uint32Array, depth: number, places: readonly number[]): void {
    const known = this.#table.find(this.#words, 0, row);
    if (known >= 0 && (this.#depths[known] ?? 0) <= depth) return;
    const at = known >= 0 ? known : this.#added(row);
    this.#depths[at] = depth;
    for (let i = 0; i < this.#parts; i++) this.#places[at * this.#parts + i] = places[i] ?? 0;
  }

  #added(row: Uint32Array): number {
    const at = this.count;
    if (at === this.#depths.length) this.#grow(Math.max(1024, 2 * at));
    this.#words.set(row, at * this.#width);
    // In a larger table every row is looked for, and put, anew.
    for (let other = this.#table.room(at + 1) ? 0 : at; other <= at; other++) {
      this.#table.find(this.#words, other * this.#width, this.#words);
      this.#table.add(other);
    }
    this.count++;
    return at;
  }

  #grow(size: number): void {
    this.#words = grown(this.#words, new Uint32Array(size * this.#width));
    this.#depths = grown(this.#depths, new Int32Array(size));
    this.#places = grown(this.#places, new Uint32Array(size * this.#parts));
  }

  /** All that was found; of what is as near, what was found first comes first. */
  nearestFirst(): { readonly rows: Rows; readonly depths: Int32Array; readonly places: Rows } {
    const depths = this.#depths.subarray(0, this.count);
    // How many are as near as each depth, and nearer.
    const until = new Uint32Array(depths.reduce((most, depth) => Math.max(most, depth), 0) + 2);
    for (const depth of depths) until[depth + 1] = (until[depth + 1] ?? 0) + 1;
    for (let depth = 1; depth < until.length; depth++)
      until[depth] = (until[depth] ?? 0) + (until[depth - 1] ?? 0);
    const order = new Uint32Array(this.count);
    for (const [at, depth] of depths.entries()) {
      const place = until[depth] ?? 0;
      until[depth] = place + 1;
      order[place] = at;
    }
    const sorted = new Int32Array(this.count);
    for (let i = 0; i < sorted.length; i++) sorted[i] = depths[order[i] ?? 0] ?? 0;
    return {
      rows: new Rows(this.#words, this.#width).pick(order),
      depths: sorted,
      places: new Rows(this.#places, this.#parts).pick(order),
    };
  }
}

/** All moments, and what can be told of each. */
class Told {
  readonly rows: Rows;
  readonly depths: Int32Array;
  readonly pictureOf: Uint32Array;
  readonly pictures: number;
  readonly #reach: Reach;
  readonly #several: readonly number[];
  readonly #places: Rows;
  readonly truths: Classes;
  readonly #truths: readonly (readonly boolean[])[];
  readonly #onWords: OnWords;
  readonly #onInRows: boolean;
  readonly #ons: (readonly On[] | undefined)[] = [];

  constructor(
    reach: Reach,
    { rows, depths, places }: ReturnType<Found['nearestFirst']>,
    of: {
      readonly several: readonly number[];
      readonly onWords: OnWords;
      readonly asked: number;
      readonly onInRows: boolean;
    },
  ) {
    this.#reach = reach;
    this.rows = rows;
    this.depths = depths;
    this.#places = places;
    this.#several = of.several;
    this.#onWords = of.onWords;
    this.#onInRows = of.onInRows;
    const { width } = of.onWords;
    const on = rows.classes(Uint32Array.from({ length: rows.width }, (_, w) => (w < width ? 0xffffffff : 0)));
    this.pictureOf = on.classOf;
    this.pictures = on.firsts.length;
    const truth = rows.classes(
      Uint32Array.from({ length: rows.width }, (_, w) => (w < width ? 0 : 0xffffffff)),
    );
    this.truths = truth;
    this.#truths = Array.from(truth.firsts, (first) =>
      Array.from(
        { length: of.asked },
        (_, i) => (((rows.words[first * rows.width + width + (i >>> 5)] ?? 0) >>> (i & 31)) & 1) === 1,
      ),
    );
  }

  onAt(at: number): readonly On[] {
    const picture = this.pictureOf[at] ?? 0;
    if (!this.#onInRows)
      return onNames(this.#reach.machine.programme.ranked)(registersAt(this.#reach, this.placesAt(at)));
    const known = this.#ons[picture] ?? this.#onWords.onsAt(this.rows.words, at * this.rows.width);
    this.#ons[picture] = known;
    return known;
  }

  truthAt(at: number): readonly boolean[] {
    return this.#truths[this.truths.classOf[at] ?? 0] ?? [];
  }

  placesAt(at: number): number[] {
    const places = this.#reach.parts.map(() => 0);
    for (const [i, index] of this.#several.entries())
      places[index] = this.#places.words[at * this.#places.width + i] ?? 0;
    return places;
  }
}

function grown<T extends Int32Array | Uint32Array>(from: T, into: T): T {
  into.set(from);
  return into;
}

/** What can be told once some of the parts stand where they stand, and could not be told with one fewer. */
interface Step {
  /** Functions to judge, each after those that it asks about. */
  readonly judges: readonly number[];
  /** Those of them that tell moments apart. */
  readonly tells: readonly number[];
  /** Questions, and the place of each among all that are asked. */
  readonly asks: readonly { readonly holdsNow: (now: Registers) => boolean; readonly place: number }[];
}

/** Step by step what each part that is combined settles: at the first, none of them. */
function stepsOf(
  { machine, parts }: Reach,
  several: readonly Faces[],
  ranks: readonly number[],
  asked: readonly Question[],
  ask: readonly ((now: Registers) => boolean)[],
): Step[] {
  const { wired } = machine;
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
    tells: [] as number[],
    asks: [] as Step['asks'][number][],
  }));
  const stepOfRank = new Map(wired.inOrder.map((rank) => [rank, settledAt(wired.dependsOn(rank))]));
  for (const rank of wired.inOrder) steps[stepOfRank.get(rank) ?? 0]?.judges.push(rank);
  for (const rank of ranks) steps[stepOfRank.get(rank) ?? 0]?.tells.push(rank);
  for (const [place, question] of asked.entries()) {
    const holdsNow = ask[place];
    // What is asked of registers may look at all of them.
    const at =
      typeof question === 'function' ? several.length : settledAt(wired.conditionDependsOn(question));
    if (holdsNow !== undefined) steps[at]?.asks.push({ holdsNow, place });
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
  const told = part.variables.filter((v) =>
    v.kind === 'input' ? new Set(classes[v.at]).size > 1 : functions.has(v.at),
  );
  if (told.length === 0) return [0];
  const numbering = new Numbering(part);
  // What is told of a state, a byte each.
  const width = Math.ceil(told.length / 4);
  const rows = new Uint32Array(count * width);
  for (let place = 0; place < count; place++) {
    numbering.into(states[place] ?? 0, r);
    for (let i = 0; i < told.length; i++) {
      const variable = told[i];
      const word = place * width + (i >>> 2);
      if (variable !== undefined) rows[word] = (rows[word] ?? 0) | (byteOf(variable) << (8 * (i & 3)));
    }
  }
  return Array.from(new Rows(rows, width).classes(new Uint32Array(width).fill(0xffffffff)).firsts);

  function byteOf({ kind, at }: Variable): number {
    switch (kind) {
      case 'input':
        return classes[at]?.[r.values[at] ?? 0] ?? 0;
      case 'memory':
        return r.memory[at] ?? 0;
      case 'phase':
        return r.phases[at] ?? 0;
    }
  }
}
