import type { Showing } from '../resolve/showing.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Moment } from './moments.ts';

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

/** So many functions are told apart by one whole number. */
const MOST_BITS = 52;

/** Which functions are on, moment by moment, as modules ask for it. */
export class OnTable {
  /** By moment and place among all ways of being on. */
  readonly #isOn: Uint8Array;
  readonly #width: number;

  constructor(showing: Showing, moments: readonly Pick<Moment, 'on'>[]) {
    this.#width = showing.ons.length;
    const place = new Map(showing.ons.map((on, i) => [on, i]));
    this.#isOn = new Uint8Array(moments.length * this.#width);
    for (const [m, { on }] of moments.entries())
      for (const one of on) this.#isOn[m * this.#width + (place.get(one) ?? 0)] = 1;
  }

  /** Which of some functions are on at a moment: a bit each, exact up to 52 of them; more are told apart by words. */
  keyAt(heeds: readonly number[], moment: number): number | string {
    const from = moment * this.#width;
    if (heeds.length > MOST_BITS) return heeds.map((place) => this.#isOn[from + place]).join('');
    let key = 0;
    for (const place of heeds) key = key * 2 + (this.#isOn[from + place] ?? 0);
    return key;
  }

  /** Those of some functions that are on at a moment. */
  onAt(heeds: readonly number[], moment: number): number[] {
    return heeds.filter((place) => this.#isOn[moment * this.#width + place] === 1);
  }
}
