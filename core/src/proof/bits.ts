import type { Drive } from '../resolve/channels.ts';

/** A set of whole numbers. */
export class Bits {
  readonly words: Uint32Array;

  constructor(words: Uint32Array) {
    this.words = words;
  }

  static of(numbers: Iterable<number>, size: number): Bits {
    const words = new Uint32Array(Math.ceil(size / 32));
    for (const n of numbers) words[n >>> 5] = (words[n >>> 5] ?? 0) | (1 << (n & 31));
    return new Bits(words);
  }

  /** How many it holds. */
  get size(): number {
    let size = 0;
    for (const word of this.words) for (let rest = word; rest !== 0; rest &= rest - 1) size++;
    return size;
  }

  get isEmpty(): boolean {
    return this.words.every((word) => word === 0);
  }

  and(other: Bits): Bits {
    const words = new Uint32Array(Math.min(this.words.length, other.words.length));
    for (let i = 0; i < words.length; i++) words[i] = (this.words[i] ?? 0) & (other.words[i] ?? 0);
    return new Bits(words);
  }

  /** Whether another holds all that this one does. */
  isWithin({ words }: Bits): boolean {
    for (let i = 0; i < this.words.length; i++)
      if (((this.words[i] ?? 0) & ~(words[i] ?? 0)) !== 0) return false;
    return true;
  }
}

/** Sets side by side, to be sorted by what they have of some numbers. */
export class Rows {
  readonly #count: number;
  readonly #width: number;
  /** Row by row: its `rest`, then the words of its set. */
  readonly #words: Uint32Array;

  /** @param rows - rows that differ in `rest` are never alike */
  constructor(rows: readonly { readonly lit: Bits; readonly rest: number }[]) {
    this.#count = rows.length;
    this.#width = 1 + (rows[0]?.lit.words.length ?? 0);
    this.#words = new Uint32Array(this.#count * this.#width);
    for (const [at, { lit, rest }] of rows.entries()) {
      this.#words[at * this.#width] = rest;
      this.#words.set(lit.words, at * this.#width + 1);
    }
  }

  /**
   * Sorts rows by what they have of some numbers.
   * @returns by row the number of its class, and by class its first row
   */
  classes(looksAt: Bits): { readonly classOf: Uint32Array; readonly firsts: Uint32Array } {
    const width = this.#width;
    const words = this.#words;
    const mask = Uint32Array.of(0xffffffff, ...looksAt.words);
    const classOf = new Uint32Array(this.#count);
    const firsts = new Uint32Array(this.#count);
    let classes = 0;
    // A table with open places, more than twice as many as there are rows: classes by their mixed words, counted from 1.
    const size = 2 ** Math.ceil(Math.log2(this.#count + 1) + 1);
    const table = new Uint32Array(size);
    const isAlike = (a: number, b: number): boolean => {
      for (let w = 0; w < width; w++)
        if (((words[a + w] ?? 0) & (mask[w] ?? 0)) !== ((words[b + w] ?? 0) & (mask[w] ?? 0))) return false;
      return true;
    };
    for (let row = 0; row < this.#count; row++) {
      const from = row * width;
      let mixed = 0;
      for (let w = 0; w < width; w++) {
        mixed = Math.imul(mixed ^ ((words[from + w] ?? 0) & (mask[w] ?? 0)), 0x9e3779b1);
        mixed ^= mixed >>> 15;
      }
      let place = mixed & (size - 1);
      for (;;) {
        const met = table[place] ?? 0;
        if (met === 0) {
          firsts[classes] = row;
          table[place] = ++classes;
          classOf[row] = classes - 1;
          break;
        }
        if (isAlike((firsts[met - 1] ?? 0) * width, from)) {
          classOf[row] = met - 1;
          break;
        }
        place = (place + 1) & (size - 1);
      }
    }
    return { classOf, firsts: firsts.slice(0, classes) };
  }
}

/** Numbers for channels at work: equal for those that light alike, whichever function drives them. */
export class DriveNumbers {
  readonly drives: Drive[] = [];
  readonly #known = new WeakMap<Drive, number>();
  readonly #byContents = new Map<string, number>();

  of(drive: Drive): number {
    const known = this.#known.get(drive);
    if (known !== undefined) return known;
    const contents = JSON.stringify({ ...drive, on: null });
    const number = this.#byContents.get(contents) ?? this.drives.push(drive) - 1;
    this.#byContents.set(contents, number);
    this.#known.set(drive, number);
    return number;
  }
}
