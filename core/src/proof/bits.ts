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

  /** Equal for equal sets. */
  get key(): string {
    let key = '';
    for (const word of this.words) key += String.fromCharCode(word & 0xffff, word >>> 16);
    return key;
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

  /** Which of some numbers it holds, the first the highest bit; for no more than 30. */
  pick(numbers: readonly number[]): number {
    let picked = 0;
    for (const n of numbers) picked = picked * 2 + (((this.words[n >>> 5] ?? 0) >>> (n & 31)) & 1);
    return picked;
  }

  and(other: Bits): Bits {
    const words = new Uint32Array(Math.min(this.words.length, other.words.length));
    for (let i = 0; i < words.length; i++) words[i] = (this.words[i] ?? 0) & (other.words[i] ?? 0);
    return new Bits(words);
  }

  /** Whether another holds all that this one does. */
  isWithin({ words }: Bits): boolean {
    return this.words.every((word, i) => (word & ~(words[i] ?? 0)) === 0);
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
