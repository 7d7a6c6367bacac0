import type { On } from '../design/controls.ts';
import type { ModuleRef } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import type { Showing } from '../resolve/showing.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Moment } from './moments.ts';
import { alikeIn, OnTable, type Alike } from './onTable.ts';

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
 * are left of many moments, the same for all modules that heed the same functions.
 */
export class ModuleCases {
  readonly #showing: Showing;
  readonly #moments: readonly Moment[];
  readonly #ambient: Ambient;
  readonly #counts: (moment: Moment) => boolean;
  readonly #on: OnTable;
  /** By module. */
  readonly #alike: readonly Alike[];
  /** Of each case the nearest moment, by its place. */
  readonly #nearest = new Map<Alike, ReadonlyMap<number | string, number>>();
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
    this.#on = new OnTable(showing, moments);
    const alike: Alike[] = [];
    for (const those of alikeIn(showing, ambient)) for (const index of those.modules) alike[index] = those;
    this.#alike = alike;
  }

  /** Every case of every module, of each the nearest. */
  *all(): Generator<ModuleCase> {
    for (let index = 0; index < this.#alike.length; index++) yield* this.#casesOf(index).values();
  }

  /** What a module shows at a moment, by their places. */
  at(index: number, moment: number): readonly Drive[] {
    const key = this.#on.keyAt(this.#alike[index]?.heeds ?? [], moment);
    return this.#casesOf(index).get(key)?.drives ?? [];
  }

  #casesOf(index: number): ReadonlyMap<number | string, ModuleCase> {
    const known = this.#byModule[index];
    if (known !== undefined) return known;
    const made = new Map<number | string, ModuleCase>();
    this.#byModule[index] = made;
    const module = this.#showing.modules[index];
    const alike = this.#alike[index];
    if (module === undefined || alike === undefined) return made;
    for (const [key, m] of this.#nearestOf(alike)) {
      const moment = this.#moments[m];
      if (moment === undefined) continue;
      const heeded = this.#on.onAt(alike.heeds, m);
      made.set(key, {
        module,
        moment,
        ambient: this.#ambient,
        on: heeded.flatMap((place) => this.#showing.ons[place] ?? []),
        drives: this.#showing.ofModule(index, heeded, this.#ambient),
      });
    }
    return made;
  }

  #nearestOf(alike: Alike): ReadonlyMap<number | string, number> {
    const known = this.#nearest.get(alike);
    if (known !== undefined) return known;
    const made = new Map<number | string, number>();
    for (const [m, moment] of this.#moments.entries()) {
      const key = this.#on.keyAt(alike.heeds, m);
      if (!made.has(key) && this.#counts(moment)) made.set(key, m);
    }
    this.#nearest.set(alike, made);
    return made;
  }
}
