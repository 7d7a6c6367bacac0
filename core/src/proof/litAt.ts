import type { Drive } from '../resolve/channels.ts';
import type { Showing } from '../resolve/showing.ts';
import type { Ambient } from '../words/ambient.ts';
import { allBits, Bits, DriveNumbers, Rows } from './bits.ts';
import type { Moments } from './moments.ts';
import { alikeIn, OnTable } from './onTable.ts';

/** What lights in one light around. */
export interface Lit {
  /** By moment: the number of what lights. */
  readonly litOf: Uint32Array;
  /** By that number: the answers of modules that heed the same. */
  readonly answers: Rows;
}

/** What lights at each of many moments, as numbers of channels. */
export class LitAt {
  readonly #showing: Showing;
  readonly #on: OnTable;
  readonly #numbers = new DriveNumbers();
  /** The channels of each answer of modules that heed the same; the first is that nothing lights. */
  readonly #answers: (readonly number[])[] = [[]];
  readonly #known = new Map<string, number>([['', 0]]);

  constructor(showing: Showing, moments: Moments) {
    this.#showing = showing;
    this.#on = OnTable.of(showing, moments);
  }

  /** Every channel that lit where it was asked, by its number. */
  get drives(): readonly Drive[] {
    return this.#numbers.drives;
  }

  /** What lights at every moment: equal numbers where the same does. */
  in(ambient: Ambient): Lit {
    const { caseOf, firsts } = this.#on;
    const alike = alikeIn(this.#showing, ambient);
    const width = Math.max(1, alike.length);
    const answers = new Uint32Array(firsts.length * width);
    for (const [i, { heeds, modules }] of alike.entries()) {
      const sorted = this.#on.sorted(heeds);
      const answerOf = sorted.firsts.map((at) => {
        const on = this.#on.onIn(heeds, at);
        return this.#answer(modules.flatMap((index) => this.#showing.ofModule(index, on, ambient)));
      });
      for (let at = 0; at < firsts.length; at++)
        answers[at * width + i] = answerOf[sorted.classOf[at] ?? 0] ?? 0;
    }
    const rows = new Rows(answers, width);
    const together = rows.classes(allBits(width));
    return {
      litOf: caseOf.map((at) => together.classOf[at] ?? 0),
      answers: rows.pick(together.firsts),
    };
  }

  /** By the number of what lights: the channels, as a set of all that were asked for before. */
  setsOf({ answers: { words, width, count } }: Lit): Bits[] {
    const size = this.drives.length;
    const ofAnswer = this.#answers.map((channels) => Bits.of(channels, size).words);
    return Array.from({ length: count }, (_, at) => {
      const set = new Uint32Array(Math.ceil(size / 32));
      for (let i = at * width; i < (at + 1) * width; i++) {
        const answer = words[i] ?? 0;
        const mine = ofAnswer[answer];
        if (answer === 0 || mine === undefined) continue;
        for (let w = 0; w < set.length; w++) set[w] = (set[w] ?? 0) | (mine[w] ?? 0);
      }
      return new Bits(set);
    });
  }

  #answer(drives: readonly Drive[]): number {
    const numbers = drives.map((drive) => this.#numbers.of(drive));
    const key = numbers.join();
    const known = this.#known.get(key) ?? this.#answers.push(numbers) - 1;
    this.#known.set(key, known);
    return known;
  }
}
