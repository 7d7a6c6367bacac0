import type { Programme } from '../controls/programme.ts';
import { leavesOf } from '../design/condition.ts';
import type { ControlFunction } from '../design/functions.ts';
import { asksAbout } from '../design/programmeFaults.ts';
import { aboutOf, type About } from './about.ts';
import { Machine } from './machine.ts';
import { momentsOf, type Moments } from './moments.ts';
import { isQuiet, type Question } from './questions.ts';
import type { Part } from './parts.ts';
import { MOST_STATES, reach, type Reach, type ReachedPart } from './reach.ts';

/** No more states are kept of parts, nor of what some functions depend on. */
const MOST_KEPT = 4_000_000;

/** What was walked, by all that it goes by. */
export class WalkedBefore {
  readonly parts = new Map<string, ReachedPart>();
  /** What some functions depend on; null where it is too much. */
  readonly abouts = new Map<string, About | null>();

  /** Forgets what there is too much of. */
  trim(): void {
    const sum = (of: readonly number[]): number => of.reduce((total, one) => total + one, 0);
    if (sum(Array.from(this.parts.values(), ({ count }) => count)) > MOST_KEPT) this.parts.clear();
    if (sum(Array.from(this.abouts.values(), (about) => about?.space.size ?? 1)) > MOST_KEPT)
      this.abouts.clear();
  }
}

/** A programme walked through, with what was asked of it: good for every build whose functions come on in the same way. */
export class Walked {
  readonly reach: Reach;
  /** The question whether no timer runs. */
  readonly isQuiet: Question;
  readonly #moments = new Map<string, Moments>();
  readonly #abouts = new Map<string, About | null>();
  readonly #memory: WalkedBefore;
  readonly #frame: string;

  /**
   * @param memory - what was walked of other programmes
   * @param frame - equal for programmes that differ in their functions alone
   */
  constructor(programme: Programme, memory = new WalkedBefore(), frame = '') {
    this.#memory = memory;
    this.#frame = frame;
    const machine = new Machine(programme);
    const texts = new Map(machine.parts.map((part) => [part, `${frame} ${partText(part, programme)}`]));
    this.reach = reach(machine, MOST_STATES, (part) => memory.parts.get(texts.get(part) ?? '') ?? null);
    for (const reached of this.reach.parts) {
      const text = texts.get(reached.part);
      if (text !== undefined) memory.parts.set(text, reached);
    }
    this.isQuiet = isQuiet(this.reach.machine);
  }

  /**
   * Every combination of functions that can be on together, told apart by some questions besides.
   * @param matters - whether a function tells moments apart; all do when not said
   */
  moments(asked: readonly Question[], matters: (fn: ControlFunction) => boolean = () => true): Moments {
    const make = (): Moments => momentsOf(this.reach, asked, { matters });
    const words = asked.map((question) => (question === this.isQuiet ? 'quiet' : question));
    // What asks in its own way is asked each time.
    if (words.some((question) => typeof question === 'function')) return make();
    const { ranked } = this.reach.machine.programme;
    const key = JSON.stringify([words, ranked.filter(matters).map(({ id }) => id)]);
    const made = this.#moments.get(key) ?? make();
    this.#moments.set(key, made);
    return made;
  }

  /** The states of what some functions depend on, walked once for all who ask; null when there are too many. */
  about(ids: readonly string[], inputs: readonly number[] = []): About | null {
    const asked = [...ids, '', ...inputs].join();
    const known = this.#abouts.get(asked);
    if (known !== undefined) return known;
    // What some of them depend on is part of it: where that is too much, this is.
    const less = ids.length > 1 ? [ids.slice(-1), ids.slice(0, -1)] : ids.flatMap((id) => this.#askedBy(id));
    const made = less.some((few) => this.about(few) === null) ? null : this.#walkAbout(ids, inputs, asked);
    this.#abouts.set(asked, made);
    return made;
  }

  #walkAbout(ids: readonly string[], inputs: readonly number[], asked: string): About | null {
    const { programme } = this.reach.machine;
    const key = `${asked} ${this.#frame} ${functionsText(programme.about(ids))}`;
    const known = this.#memory.abouts.get(key);
    if (known !== undefined) return known;
    const made = aboutOf(programme, ids, inputs);
    this.#memory.abouts.set(key, made);
    return made;
  }

  /** Each function that one asks about. */
  #askedBy(id: string): string[][] {
    const fn = this.reach.machine.programme.function(id);
    return fn === undefined ? [] : asksAbout(fn).map((asked) => [asked]);
  }
}

/** All by which a part of a programme goes, besides its frame: what is in it, what happens, and the functions that decide. */
function partText({ variables, events, judged }: Part, programme: Programme): string {
  const { inputs, ranked, controls } = programme;
  const asksOn =
    controls.enabledBy !== null && [...leavesOf(controls.enabledBy)].some(({ kind }) => kind === 'on');
  const ranks = new Set([
    ...judged,
    ...variables.flatMap((v) => (v.kind === 'input' ? [] : [v.at])),
    ...events.flatMap(({ heard, touches }) => [...heard.map(({ fn }) => fn), ...touches]),
  ]);
  // What the master switch asks about functions goes by all of them.
  const mine = asksOn ? ranked : ranked.filter((_, rank) => ranks.has(rank));
  return JSON.stringify([
    variables.map(({ kind, at }) => [kind, kind === 'input' ? inputs[at]?.id : ranked[at]?.id]),
    events.map(({ event }) => event),
    logicOf(mine),
  ]);
}

/** All by which the functions of a programme come on, as a text: not what they are called, nor what they show. */
export const functionsText = ({ ranked }: Programme): string => logicOf(ranked);

const logicOf = (functions: readonly ControlFunction[]): string =>
  JSON.stringify(
    functions.map(({ id, kind, when, shows, enabledBy, forgets, choiceId, withoutMaster }) => [
      id,
      kind,
      when,
      shows.length,
      enabledBy,
      forgets,
      choiceId,
      withoutMaster,
    ]),
  );

/** All else by which they come on: what can be operated, and what goes with what. */
export const frameText = ({ inputs, controls, deliberate }: Programme): string =>
  JSON.stringify([
    inputs.map(({ id, values, source, byHand }) => [id, values, source, byHand]),
    controls.panels,
    controls.enabledBy,
    controls.never,
    controls.follows,
    [...deliberate],
  ]);
