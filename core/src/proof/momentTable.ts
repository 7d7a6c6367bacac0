import type { On } from '../design/controls.ts';
import { onNames, registersAt } from './atMoment.ts';
import { ALL, hasBit, type Classes, type Rows } from './bits.ts';
import type { Registers } from './machine.ts';
import type { Sorted } from './nearestRows.ts';
import type { OnWords } from './onWords.ts';
import type { Reach } from './reach.ts';

/** States in which the same functions are on and the same of some conditions hold: one of them, the nearest to rest. */
export class Moment {
  /** Equal for moments in which the same is on. */
  readonly picture: number;
  /** How many events it takes to get there. */
  readonly depth: number;
  readonly #table: MomentTable;
  readonly #at: number;
  #on: readonly On[] | null = null;

  constructor(table: MomentTable, at: number) {
    this.#table = table;
    this.#at = at;
    this.picture = table.pictureOf[at] ?? 0;
    this.depth = table.depths[at] ?? 0;
  }

  /** Strongest first; each cycle with its number. */
  get on(): readonly On[] {
    this.#on ??= this.#table.onAt(this.#at);
    return this.#on;
  }

  /** Of the conditions asked, in their order. */
  get holds(): readonly boolean[] {
    return this.#table.truthAt(this.#at);
  }

  /** Where each part stands: the place of its state among those reached. */
  get places(): readonly number[] {
    return this.#table.placesAt(this.#at);
  }
}

/** All moments as rows, and what can be told of each. */
export class MomentTable {
  readonly rows: Rows;
  readonly depths: Int32Array;
  readonly pictureOf: Uint32Array;
  readonly pictures: number;
  readonly #reach: Reach;
  readonly #several: readonly number[];
  readonly #places: Rows;
  /** Sorted by which conditions hold. */
  readonly truths: Classes;
  readonly #truths: readonly (readonly boolean[])[];
  readonly #onWords: OnWords;
  /** What is on where the rows do not say it all. */
  readonly #onsOf: ((r: Registers) => On[]) | null;
  readonly #ons: (readonly On[] | undefined)[] = [];
  readonly #moments: (Moment | undefined)[] = [];

  constructor(
    reach: Reach,
    { rows, depths, places }: Sorted,
    of: {
      readonly several: readonly number[];
      readonly onWords: OnWords;
      readonly asked: number;
      /** Whether the rows say all that is on. */
      readonly saysAll: boolean;
    },
  ) {
    this.#reach = reach;
    this.rows = rows;
    this.depths = depths;
    this.#places = places;
    this.#several = of.several;
    this.#onWords = of.onWords;
    this.#onsOf = of.saysAll ? null : onNames(reach.machine.programme.ranked);
    const { width } = of.onWords;
    const onAlone = new Uint32Array(rows.width).fill(ALL, 0, width);
    const on = rows.classes(onAlone);
    this.pictureOf = on.classOf;
    this.pictures = on.firsts.length;
    this.truths = rows.classes(onAlone.map((word) => ~word));
    this.#truths = Array.from(this.truths.firsts, (first) =>
      Array.from({ length: of.asked }, (_, i) => hasBit(rows.words, first * rows.width + width, i)),
    );
  }

  /** @throws {RangeError} there is none */
  moment(at: number): Moment {
    if (!(at >= 0 && at < this.rows.count)) throw new RangeError(`no moment ${at}`);
    const moment = this.#moments[at] ?? new Moment(this, at);
    this.#moments[at] = moment;
    return moment;
  }

  *where(wanted: (holds: readonly boolean[]) => boolean): Generator<number> {
    const isWanted = this.#truths.map(wanted);
    const { classOf } = this.truths;
    for (let at = 0; at < classOf.length; at++) if (isWanted[classOf[at] ?? 0] === true) yield at;
  }

  onAt(at: number): readonly On[] {
    const picture = this.pictureOf[at] ?? 0;
    if (this.#onsOf !== null) return this.#onsOf(registersAt(this.#reach, this.placesAt(at)));
    const known = this.#ons[picture] ?? this.#onWords.onsAt(this.rows.words, at * this.rows.width);
    this.#ons[picture] = known;
    return known;
  }

  truthAt(at: number): readonly boolean[] {
    return this.#truths[this.truths.classOf[at] ?? 0] ?? [];
  }

  placesAt(at: number): number[] {
    const places = this.#reach.parts.map(() => 0);
    for (const [i, index] of this.#several.entries())
      places[index] = this.#places.words[at * this.#places.width + i] ?? 0;
    return places;
  }
}
