import type { Drive } from '../resolve/channels.ts';

/** Every bit of a word. */
export const ALL = 0xffffffff;

/** Every bit of so many words. */
export const allBits = (width: number): Uint32Array => new Uint32Array(width).fill(ALL);

/** Sets a bit of the words that begin at a place. */
export function putBit(words: Uint32Array, from: number, bit: number): void {
  const word = from + (bit >>> 5);
  words[word] = (words[word] ?? 0) | (1 << (bit & 31));
}

export const hasBit = (words: Uint32Array, from: number, bit: number): boolean =>
  (((words[from + (bit >>> 5)] ?? 0) >>> (bit & 31)) & 1) === 1;

/** How many bits of a word are set: those of pairs, of fours, of eights, and of all four eights summed at once. */
export function countBits(word: number): number {
  const pairs = word - ((word >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

/** A longer list that begins as another. */
export function grown<T extends Float64Array | Int32Array | Uint32Array>(from: T, into: T): T {
  into.set(from);
  return into;
}

/** A set of whole numbers. */
export class Bits {
  readonly words: Uint32Array;

  constructor(words: Uint32Array) {
    this.words = words;
  }

  static of(numbers: Iterable<number>, size: number): Bits {
    const words = new Uint32Array(Math.ceil(size / 32));
    for (const n of numbers) putBit(words, 0, n);
    return new Bits(words);
  }

  get isEmpty(): boolean {
    return this.words.every((word) => word === 0);
  }

  has(n: number): boolean {
    return hasBit(this.words, 0, n);
  }

  and(other: Bits): Bits {
    const words = new Uint32Array(Math.min(this.words.length, other.words.length));
    for (let i = 0; i < words.length; i++) words[i] = (this.words[i] ?? 0) & (other.words[i] ?? 0);
    return new Bits(words);
  }
}

/** Rows alike in what was asked of them. */
export interface Classes {
  /** By row: the number of its class. */
  readonly classOf: Uint32Array;
  /** By class: its first row. */
  readonly firsts: Uint32Array;
}

/** Rows of words side by side, to be sorted by some of their bits. */
export class Rows {
  /** Row by row. */
  readonly words: Uint32Array;
  readonly width: number;

  /** @param width - words of a row, at least one */
  constructor(words: Uint32Array, width: number) {
    this.words = words;
    this.width = width;
  }

  get count(): number {
    return this.words.length / this.width;
  }

  /** The words of a row. */
  row(at: number): Uint32Array {
    return this.words.subarray(at * this.width, (at + 1) * this.width);
  }

  /** Some of the rows, in the order asked for. */
  pick(places: Uint32Array): Rows {
    const { width } = this;
    const words = new Uint32Array(places.length * width);
    for (let i = 0; i < places.length; i++) {
      const from = (places[i] ?? 0) * width;
      for (let w = 0; w < width; w++) words[i * width + w] = this.words[from + w] ?? 0;
    }
    return new Rows(words, width);
  }

  /**
   * Sorts rows by some of their bits.
   * @param mask - those bits, word by word
   */
  classes(mask: Uint32Array): Classes {
    const { count, words, width } = this;
    const classOf = new Uint32Array(count);
    const firsts = new Uint32Array(count);
    const met = new RowTable(width, mask);
    let classes = 0;
    for (let row = 0; row < count; row++) {
      const known = met.find(words, row * width, words);
      if (known >= 0) {
        classOf[row] = classOf[known] ?? 0;
        continue;
      }
      met.add(row);
      firsts[classes] = row;
      classOf[row] = classes++;
    }
    return { classOf, firsts: firsts.slice(0, classes) };
  }
}

/** Finds rows by some of their bits: a table with open places, at least twice as many as there are rows. */
export class RowTable {
  readonly #width: number;
  /** The words that tell rows apart, by their places, and which bits of them do. */
  readonly #asked: Uint32Array;
  readonly #bits: Uint32Array;
  /** Rows by their mixed words, counted from 1, and those words as they are mixed. */
  #table = new Uint32Array(256);
  #mixes = new Uint32Array(256);
  #count = 0;
  /** Where the row that was looked for last would stand, and its words as they are mixed. */
  #free = 0;
  #mixed = 0;

  /** @param mask - the bits by which rows are told apart, word by word */
  constructor(width: number, mask: Uint32Array) {
    this.#width = width;
    this.#asked = Uint32Array.from([...mask.keys()].filter((w) => mask[w] !== 0));
    this.#bits = this.#asked.map((w) => mask[w] ?? 0);
  }

  /** The row, among some words, that is alike to one that stands elsewhere; -1 where there is none. */
  find(among: Uint32Array, from: number, of: Uint32Array): number {
    const width = this.#width;
    const asked = this.#asked;
    const bits = this.#bits;
    const words = asked.length;
    let mixed = 0;
    for (let i = 0; i < words; i++) {
      mixed = Math.imul(mixed ^ ((of[from + (asked[i] ?? 0)] ?? 0) & (bits[i] ?? 0)), 0x9e3779b1);
      mixed ^= mixed >>> 16;
      mixed = Math.imul(mixed, 0x85ebca6b);
      mixed ^= mixed >>> 13;
    }
    mixed >>>= 0;
    this.#mixed = mixed;
    const table = this.#table;
    const mixes = this.#mixes;
    for (let place = mixed & (table.length - 1); ; place = (place + 1) & (table.length - 1)) {
      const met = table[place] ?? 0;
      if (met === 0) {
        this.#free = place;
        return -1;
      }
      if (mixes[place] !== mixed) continue;
      const row = (met - 1) * width;
      let i = 0;
      for (; i < words; i++) {
        const w = asked[i] ?? 0;
        if ((((among[row + w] ?? 0) ^ (of[from + w] ?? 0)) & (bits[i] ?? 0)) !== 0) break;
      }
      if (i === words) return met - 1;
    }
  }

  /** Adds the row that was looked for last and not found. */
  add(row: number): void {
    this.#table[this.#free] = row + 1;
    this.#mixes[this.#free] = this.#mixed;
    if (2 * ++this.#count >= this.#table.length) this.#grow();
  }

  #grow(): void {
    const [rows, mixes] = [this.#table, this.#mixes];
    const size = 4 * rows.length;
    this.#table = new Uint32Array(size);
    this.#mixes = new Uint32Array(size);
    for (let i = 0; i < rows.length; i++) {
      const row = rows[i] ?? 0;
      if (row === 0) continue;
      const mixed = mixes[i] ?? 0;
      let place = mixed & (size - 1);
      while (this.#table[place] !== 0) place = (place + 1) & (size - 1);
      this.#table[place] = row;
      this.#mixes[place] = mixed;
    }
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
