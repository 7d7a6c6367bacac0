import type { Programme } from '../controls/programme.ts';
import type { ControlFunction } from '../design/functions.ts';
import { asksAbout } from '../design/programmeFaults.ts';
import { aboutOf, type About } from './about.ts';
import { Machine } from './machine.ts';
import { isQuiet, momentsOf, type Moments, type Question } from './moments.ts';
import { reach, type Reach } from './reach.ts';

/** A programme walked through, with what was asked of it: good for every build whose functions come on in the same way. */
export class Walked {
  readonly reach: Reach;
  /** The question whether no timer runs. */
  readonly isQuiet: Question;
  readonly #moments = new Map<string, Moments>();
  readonly #abouts = new Map<string, About | null>();
  readonly #memory: Map<string, About | null>;
  readonly #frame: string;

  /**
   * @param memory - what was walked of other programmes, by all that it goes by
   * @param frame - equal for programmes that differ in their functions alone
   */
  constructor(programme: Programme, memory = new Map<string, About | null>(), frame = '') {
    this.#memory = memory;
    this.#frame = frame;
    this.reach = reach(new Machine(programme));
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
    const known = this.#memory.get(key);
    if (known !== undefined) return known;
    const made = aboutOf(programme, ids, inputs);
    this.#memory.set(key, made);
    return made;
  }

  /** Each function that one asks about. */
  #askedBy(id: string): string[][] {
    const fn = this.reach.machine.programme.function(id);
    return fn === undefined ? [] : asksAbout(fn).map((asked) => [asked]);
  }
}

/** All by which the functions of a programme come on, as a text: not what they are called, nor what they show. */
export const functionsText = ({ ranked }: Programme): string =>
  JSON.stringify(
    ranked.map(({ id, kind, when, shows, enabledBy, forgets, choiceId, withoutMaster }) => [
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
