import { onKey, readOn, type On } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import type { Registers } from './machine.ts';

/** Where a function stands among the words: whether it is on, and of a cycle its number. */
interface Field {
  readonly rank: number;
  readonly word: number;
  readonly shift: number;
  /** Its bits, before they are shifted. */
  readonly bits: number;
  readonly isCycle: boolean;
  /** By what its bits say, from 1. */
  readonly names: readonly On[];
}

/** What is on, as bits of words: one of a function, several of a cycle. */
export class OnWords {
  /** How many words there are. */
  readonly width: number;
  /** The strongest first. */
  readonly #fields: readonly Field[];
  readonly #byRank: (Field | undefined)[] = [];
  readonly #byId = new Map<string, Field>();

  /** @param ranks - the functions that are told apart */
  constructor(ranked: readonly ControlFunction[], ranks: readonly number[]) {
    let [word, used] = [0, 0];
    this.#fields = ranks.flatMap((rank) => {
      const fn = ranked[rank];
      if (fn === undefined) return [];
      const isCycle = fn.when.way === 'cycle';
      const numbers = isCycle ? fn.shows.length : 1;
      const size = Math.ceil(Math.log2(numbers + 1));
      if (used + size > 32) [word, used] = [word + 1, 0];
      const names = Array.from({ length: numbers }, (_, i) => onKey(fn.id, i + 1));
      const field = { rank, word, shift: used, bits: 2 ** size - 1, isCycle, names };
      used += size;
      this.#byRank[rank] = field;
      this.#byId.set(fn.id, field);
      return [field];
    });
    this.width = word + 1;
  }

  /** Writes into a row that a function is on, if it is. */
  put(rank: number, { on, memory }: Registers, row: Uint32Array): void {
    const field = this.#byRank[rank];
    if (field === undefined || on[rank] !== 1) return;
    const { word, shift, isCycle } = field;
    row[word] = (row[word] ?? 0) | ((isCycle ? (memory[rank] ?? 1) : 1) << shift);
  }

  /** The bits of some functions, whatever their number. */
  maskOf(ons: Iterable<On>): Uint32Array {
    const mask = new Uint32Array(this.width);
    for (const on of ons) {
      const field = this.#byId.get(readOn(on).id);
      if (field !== undefined) mask[field.word] = (mask[field.word] ?? 0) | (field.bits << field.shift);
    }
    return mask;
  }

  /** The question whether something is on in a row that begins at a place. */
  asks(on: On): (words: Uint32Array, from: number) => boolean {
    const { id, number } = readOn(on);
    const field = this.#byId.get(id);
    if (field === undefined) return () => false;
    const { word, shift, bits } = field;
    return (words, from) => (((words[from + word] ?? 0) >>> shift) & bits) === number;
  }

  /** What is on in a row that begins at a place, the strongest first. */
  onsAt(words: Uint32Array, from: number): On[] {
    return this.#fields.flatMap(
      ({ word, shift, bits, names }) => names[(((words[from + word] ?? 0) >>> shift) & bits) - 1] ?? [],
    );
  }
}
