import type { On } from '../design/controls.ts';
import type { ModuleRef } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import type { Showing } from '../resolve/showing.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Moment } from './moments.ts';

/** A module in one of the cases that differ for it: which of the functions that matter to it are on. */
export interface ModuleCase {
  readonly module: ModuleRef;
  /** Strongest first; functions that do not matter to it are left out. */
  readonly on: readonly On[];
  readonly drives: readonly Drive[];
  readonly ambient: Ambient;
  /** The nearest moment in which it is so. */
  readonly moment: Moment;
}

/**
 * Module by module what it shows over many moments: most functions do not matter to most modules, so that few cases
 * are left of many moments.
 */
const MOST_BITS = 52;

export class ModuleCases {
  readonly #showing: Showing;
  readonly #moments: readonly Moment[];
  readonly #ambient: Ambient;
  readonly #counts: (moment: Moment) => boolean;
  /** By moment and place among all ways of being on: whether it is. */
  readonly #isOn: Uint8Array;
  readonly #width: number;
  readonly #heeds: readonly (readonly number[])[];
  readonly #byModule: (ReadonlyMap<number | string, ModuleCase> | undefined)[] = [];

  /** @param counts - the moments that can be in this light; the others are left out */
  constructor(
    showing: Showing,
    moments: readonly Moment[],
    ambient: Ambient,
    counts: (moment: Moment) => boolean,
  ) {
    this.#counts = counts;
    this.#showing = showing;
    this.#moments = moments;
    this.#ambient = ambient;
    this.#width = showing.ons.length;
    this.#heeds = showing.heeds(ambient);
    const place = new Map(showing.ons.map((on, i) => [on, i]));
    this.#isOn = new Uint8Array(moments.length * this.#width);
    for (const [m, { on }] of moments.entries())
      for (const one of on) this.#isOn[m * this.#width + (place.get(one) ?? 0)] = 1;
  }

  /** Every case of every module, of each the nearest. */
  *all(): Generator<ModuleCase> {
    for (let index = 0; index < this.#heeds.length; index++) yield* this.#casesOf(index).values();
  }

  /** What a module shows at a moment, by their places. */
  at(index: number, moment: number): readonly Drive[] {
    return this.#casesOf(index).get(this.#keyAt(index, moment))?.drives ?? [];
  }

  /** Which of the functions that matter to a module are on: a bit each, exact up to 52 of them; more are told apart by words. */
  #keyAt(index: number, moment: number): number | string {
    const heeds = this.#heeds[index] ?? [];
    const from = moment * this.#width;
    if (heeds.length > MOST_BITS) return heeds.map((place) => this.#isOn[from + place]).join('');
    let key = 0;
    for (const place of heeds) key = key * 2 + (this.#isOn[from + place] ?? 0);
    return key;
  }

  #casesOf(index: number): ReadonlyMap<number | string, ModuleCase> {
    const known = this.#byModule[index];
    if (known !== undefined) return known;
    const made = new Map<number | string, ModuleCase>();
    const module = this.#showing.modules[index];
    const heeds = this.#heeds[index] ?? [];
    for (const [m, moment] of this.#moments.entries()) {
      const key = this.#keyAt(index, m);
      if (module === undefined || made.has(key) || !this.#counts(moment)) continue;
      const heeded = heeds.filter((place) => this.#isOn[m * this.#width + place] === 1);
      made.set(key, {
        module,
        moment,
        ambient: this.#ambient,
        on: heeded.flatMap((place) => this.#showing.ons[place] ?? []),
        drives: this.#showing.ofModule(index, heeded, this.#ambient),
      });
    }
    this.#byModule[index] = made;
    return made;
  }
}
