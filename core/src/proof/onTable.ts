import type { On } from '../design/controls.ts';
import type { Showing } from '../resolve/showing.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { putBit, type Classes, type Rows } from './bits.ts';
import type { Moments } from './moments.ts';
import type { OnWords } from './onWords.ts';

/** Modules to which the same functions matter. */
export interface Alike {
  /** Those functions, by their places among all ways of being on, the strongest first. */
  readonly heeds: readonly number[];
  /** By their places among the modules that may light. */
  readonly modules: readonly number[];
}

/** The modules that may light, those together that heed the same functions in one light. */
export function alikeIn(showing: Showing, ambient: Ambient): Alike[] {
  const byHeeds = new Map<string, { readonly heeds: readonly number[]; readonly modules: number[] }>();
  for (const [index, heeds] of showing.heeds(ambient).entries()) {
    const key = heeds.join();
    const alike = byHeeds.get(key) ?? { heeds, modules: [] };
    alike.modules.push(index);
    byHeeds.set(key, alike);
  }
  return [...byHeeds.values()];
}

/**
 * Moments sorted by what is on of all that matters to some module: one case for those in which that is the same, and the
 * cases sorted on by what matters to one.
 */
export class OnTable {
  /** By moment: the number of its case. */
  readonly caseOf: Uint32Array;
  /** By case: its first moment. */
  readonly firsts: Uint32Array;
  readonly #ons: readonly On[];
  readonly #onWords: OnWords;
  /** By place among all ways of being on. */
  readonly #isOn: readonly ((words: Uint32Array, from: number) => boolean)[];
  readonly #cases: Rows;
  readonly #besides: Uint32Array;
  readonly #sorted = new Map<string, Classes>();

  private constructor(
    ons: readonly On[],
    { rows, onWords }: Moments,
    mask: Uint32Array,
    besides: Uint32Array,
  ) {
    this.#ons = ons;
    this.#onWords = onWords;
    this.#isOn = ons.map((on) => onWords.asks(on));
    this.#besides = besides;
    const { classOf, firsts } = rows.classes(mask);
    this.caseOf = classOf;
    this.firsts = firsts;
    this.#cases = rows.pick(firsts);
  }

  /**
   * The moments sorted as a build shows them; worked out once for builds to whose modules the same functions matter.
   * @param besides - questions asked of the moments that are told apart, too, by their places
   */
  static of(showing: Showing, moments: Moments, besides: readonly number[] = []): OnTable {
    const { rows, onWords } = moments;
    const asked = new Uint32Array(rows.width);
    for (const place of besides) putBit(asked, onWords.width, place);
    const heeded = new Set(AMBIENTS.flatMap((ambient) => showing.heeds(ambient).flat()));
    const mask = maskOf(onWords, showing.ons, [...heeded], asked);
    const ofMoments = tables.get(moments) ?? new Map<string, OnTable>();
    tables.set(moments, ofMoments);
    const key = `${mask.join()} ${showing.ons.join()}`;
    const table = ofMoments.get(key) ?? new OnTable(showing.ons, moments, mask, asked);
    ofMoments.set(key, table);
    return table;
  }

  /** Cases sorted by which of some functions are on; worked out once for all who ask about the same. */
  sorted(heeds: readonly number[]): Classes {
    const key = heeds.join();
    const known =
      this.#sorted.get(key) ?? this.#cases.classes(maskOf(this.#onWords, this.#ons, heeds, this.#besides));
    this.#sorted.set(key, known);
    return known;
  }

  /** Those of some functions that are on in a case. */
  onIn(heeds: readonly number[], at: number): number[] {
    const { words, width } = this.#cases;
    return heeds.filter((place) => this.#isOn[place]?.(words, at * width));
  }
}

const tables = new WeakMap<Moments, Map<string, OnTable>>();

/** The bits of some functions, by their places among all ways of being on, and some bits besides. */
function maskOf(
  onWords: OnWords,
  ons: readonly On[],
  heeds: readonly number[],
  besides: Uint32Array,
): Uint32Array {
  const mask = besides.slice();
  const on = onWords.maskOf(heeds.flatMap((place) => ons[place] ?? []));
  for (const [w, word] of on.entries()) mask[w] = (mask[w] ?? 0) | word;
  return mask;
}
