import type { On } from '../design/controls.ts';
import type { ModuleRef } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import type { Showing } from '../resolve/showing.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Moments } from './moments.ts';
import type { Moment } from './momentTable.ts';
import { alikeIn, type Alike, type OnTable } from './onTable.ts';

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
  readonly #moments: Moments;
  readonly #ambient: Ambient;
  readonly #counts: (moment: Moment) => boolean;
  readonly #on: OnTable;
  /** By module. */
  readonly #alike: readonly Alike[];
  /** By module, and by what is on of all that it heeds. */
  readonly #byModule: ((ModuleCase | undefined)[] | undefined)[] = [];

  /**
   * @param on - of these moments; those that can be in this light told from those that cannot
   * @param counts - whether a moment can be in this light; the others are left out
   */
  constructor(
    showing: Showing,
    moments: Moments,
    { on, ambient, counts }: { on: OnTable; ambient: Ambient; counts: (moment: Moment) => boolean },
  ) {
    this.#counts = counts;
    this.#showing = showing;
    this.#moments = moments;
    this.#ambient = ambient;
    this.#on = on;
    const alike: Alike[] = [];
    for (const those of alikeIn(showing, ambient)) for (const index of those.modules) alike[index] = those;
    this.#alike = alike;
  }

  /** Every case of every module, of each the nearest. */
  *all(): Generator<ModuleCase> {
    for (let index = 0; index < this.#alike.length; index++)
      for (const one of this.#casesOf(index)) if (one !== undefined) yield one;
  }

  /** What a module shows at a moment, by their places. */
  at(index: number, moment: number): readonly Drive[] {
    const { classOf } = this.#on.sorted(this.#alike[index]?.heeds ?? []);
    return this.#casesOf(index)[classOf[this.#on.caseOf[moment] ?? 0] ?? 0]?.drives ?? [];
  }

  #casesOf(index: number): (ModuleCase | undefined)[] {
    const known = this.#byModule[index];
    if (known !== undefined) return known;
    const module = this.#showing.modules[index];
    const alike = this.#alike[index];
    if (module === undefined || alike === undefined) return [];
    const made = Array.from(this.#on.sorted(alike.heeds).firsts, (at): ModuleCase | undefined => {
      const moment = this.#moments.at(this.#on.firsts[at] ?? 0);
      if (!this.#counts(moment)) return undefined;
      const heeded = this.#on.onIn(alike.heeds, at);
      return {
        module,
        moment,
        ambient: this.#ambient,
        on: heeded.flatMap((place) => this.#showing.ons[place] ?? []),
        drives: this.#showing.ofModule(index, heeded, this.#ambient),
      };
    });
    this.#byModule[index] = made;
    return made;
  }
}
