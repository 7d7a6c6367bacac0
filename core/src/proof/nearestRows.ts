import { allBits, grown, Rows, RowTable } from './bits.ts';

/** Rows of words, each once and by the shortest way to it: how far that is, and where each part stands there. */
export class NearestRows {
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
    this.#table = new RowTable(width, allBits(width));
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
    this.#table.add(at);
    this.count++;
    return at;
  }

  #grow(size: number): void {
    this.#words = grown(this.#words, new Uint32Array(size * this.#width));
    this.#depths = grown(this.#depths, new Int32Array(size));
    this.#places = grown(this.#places, new Uint32Array(size * this.#parts));
  }

  /** All that was found; of what is as near, what was found first comes first. */
  nearestFirst(): Sorted {
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

/** Rows, the nearest first. */
export interface Sorted {
  readonly rows: Rows;
  readonly depths: Int32Array;
  /** By row: where each part stands. */
  readonly places: Rows;
}
