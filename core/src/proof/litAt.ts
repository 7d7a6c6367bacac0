import type { Drive } from '../resolve/channels.ts';
import type { Showing } from '../resolve/showing.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { Bits, DriveNumbers } from './bits.ts';
import type { Moment } from './moments.ts';
import { alikeIn, OnTable, type Alike } from './onTable.ts';

/** What modules that heed the same functions light, by which of these are on: the number of an answer. */
interface Answers extends Alike {
  readonly byOn: Map<number | string, number>;
}

/** What lights at each of many moments, as numbers of channels. */
export class LitAt {
  readonly #showing: Showing;
  readonly #on: OnTable;
  readonly #numbers = new DriveNumbers();
  readonly #inLight: ReadonlyMap<Ambient, readonly Answers[]>;
  /** The channels of each answer; the first is that nothing lights. */
  readonly #answers: (readonly number[])[] = [[]];
  readonly #bits: Bits[] = [];
  readonly #known = new Map<string, number>([['', 0]]);

  constructor(showing: Showing, moments: readonly Pick<Moment, 'on'>[]) {
    this.#showing = showing;
    this.#on = new OnTable(showing, moments);
    this.#inLight = new Map(
      AMBIENTS.map((ambient) => [
        ambient,
        alikeIn(showing, ambient).map((alike) => ({ ...alike, byOn: new Map<number | string, number>() })),
      ]),
    );
  }

  /** Every channel that lit where it was asked, by its number. */
  get drives(): readonly Drive[] {
    return this.#numbers.drives;
  }

  /**
   * The answers of all modules at a moment: equal where the same lights.
   * @param moment - by its place
   */
  at(moment: number, ambient: Ambient): number[] {
    return (this.#inLight.get(ambient) ?? []).map((alike) => {
      const key = this.#on.keyAt(alike.heeds, moment);
      const known = alike.byOn.get(key);
      if (known !== undefined) return known;
      const on = this.#on.onAt(alike.heeds, moment);
      const answer = this.#answer(
        alike.modules.flatMap((index) => this.#showing.ofModule(index, on, ambient)),
      );
      alike.byOn.set(key, answer);
      return answer;
    });
  }

  /** The channels that light by some answers: all of those asked for before. */
  bits(answers: readonly number[]): Bits {
    const size = this.drives.length;
    for (let answer = this.#bits.length; answer < this.#answers.length; answer++)
      this.#bits.push(Bits.of(this.#answers[answer] ?? [], size));
    const words = new Uint32Array(Math.ceil(size / 32));
    for (const answer of answers)
      for (let w = 0; w < words.length; w++) words[w] = (words[w] ?? 0) | (this.#bits[answer]?.words[w] ?? 0);
    return new Bits(words);
  }

  #answer(drives: readonly Drive[]): number {
    const numbers = drives.map((drive) => this.#numbers.of(drive));
    const key = numbers.join();
    const known = this.#known.get(key) ?? this.#answers.push(numbers) - 1;
    this.#known.set(key, known);
    return known;
  }
}
