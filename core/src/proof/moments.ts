import type { ControlFunction } from '../design/functions.ts';
import { putBit, type Classes, type Rows } from './bits.ts';
import { facesOf, type Faces } from './faces.ts';
import type { Registers } from './machine.ts';
import { MomentTable, type Moment } from './momentTable.ts';
import { NearestRows } from './nearestRows.ts';
import { Numbering } from './numbering.ts';
import { OnWords } from './onWords.ts';
import type { Question } from './questions.ts';
import type { Reach } from './reach.ts';
import type { Depends } from './wired.ts';

/** No more combinations of parts are looked through; what lies beyond is then not known. */
export const MOST_COMBINED = 3_000_000;

/** No more moments are kept; what else there is, is then not known. */
const MOST_MOMENTS = 400_000;

export interface Moments {
  readonly reach: Reach;
  readonly count: number;
  /** @param place - the nearest first; @throws {RangeError} there is none */
  readonly at: (place: number) => Moment;
  /** The places of those in which conditions hold as wanted, of those asked in their order. */
  readonly where: (wanted: (holds: readonly boolean[]) => boolean) => Generator<number>;
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
  const { ranked } = machine.programme;
  const conditions = asked.filter((question) => typeof question !== 'function');
  const ranks = [...ranked.keys()].filter((rank) => {
    const fn = ranked[rank];
    return fn !== undefined && matters(fn);
  });
  // What is asked of registers may look at all of them.
  const told =
    conditions.length < asked.length ? new Set(ranked.keys()) : machine.wired.through(ranks, conditions);
  const several = facesOf(reach, told, conditions).filter(({ places }) => places.length > 1);
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
  const found = new NearestRows(width, several.length);
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
    for (const { holdsNow, place } of step.asks) if (holdsNow(r)) putBit(now, onWords.width, place);
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
  const table = new MomentTable(reach, found.nearestFirst(), {
    several: several.map(({ index }) => index),
    onWords,
    asked: asked.length,
    // What does not tell moments apart may be on or off in moments alike.
    saysAll: ranks.length === ranked.length,
  });
  const { pictures, rows, truths } = table;
  return {
    reach,
    count: rows.count,
    at: (place) => table.moment(place),
    where: (wanted) => table.where(wanted),
    pictures,
    whole,
    rows,
    onWords,
    truths,
  };
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
