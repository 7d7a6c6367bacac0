import type { Build } from '../design/schema.ts';
import { effectsOf, type ActiveFunction } from '../design/controls.ts';
import type { Drive } from '../resolve/channels.ts';
import type { OutputResolver } from '../resolve/showing.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { OverBudget } from './cannotTell.ts';
import { NONE, type Diagram } from './diagrams.ts';
import type { SymbolicProgram } from './symbolic.ts';

/** What the modules of a cell show, and when. */
export interface CellAnswer {
  /** Sets of functions of the cell that are on together, told by their variables. */
  readonly when: Diagram;
  /** One of them, as far as it matters, strongest first. */
  readonly on: readonly ActiveFunction[];
  /** By module of the cell. */
  readonly drives: readonly (readonly Drive[])[];
}

/** Modules that heed the same functions in one light, and all that they can show. */
export interface Cell {
  readonly ambient: Ambient;
  /** By their places among the modules that may light. */
  readonly modules: readonly number[];
  /** Strongest first. */
  readonly heeds: readonly ActiveFunction[];
  /** All their output states that can be reached. */
  readonly reached: Diagram;
  readonly answers: readonly CellAnswer[];
}

/** A cell is walked through by so many combinations of what it heeds at most, however few things come of them. */
const MOST_WALKED = 200_000;

/** The modules that may light, those together that heed the same functions in one light. */
function alikeIn(
  showing: OutputResolver,
  ambient: Ambient,
): { readonly heeds: readonly number[]; readonly modules: number[] }[] {
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
 * What all modules can show in some states: functions are walked strongest first, up to the one that takes the modules; those
 * that dim go on.
 * @param states - by light around
 * @throws {OverBudget} some modules can show too much
 */
export function cellsOf(
  build: Build,
  showing: OutputResolver,
  program: SymbolicProgram,
  states: Readonly<Record<Ambient, Diagram>>,
): Cell[] {
  const lookup = lookupOf(build);
  const factory = new Set(
    build.placements.filter((p) => lookup.fixture(p.fixtureId).kind === 'factory').map(({ id }) => id),
  );
  return AMBIENTS.flatMap((ambient) =>
    alikeIn(showing, ambient).map(({ heeds, modules }): Cell => {
      const ons = heeds.map((place) => showing.ons[place] ?? '');
      const reached = program.outputStates(states[ambient], ons);
      // On a lamp of the vehicle's own a signal may be the weakest of all: its flasher decides.
      const isFactory = modules.some((index) => factory.has(showing.modules[index]?.placementId ?? ''));
      const takes = ons.map((on) => {
        const wants = showing.wants(on, ambient);
        return !isFactory && modules.every((index) => wants[index]?.takes === true);
      });
      const dims = ons.map((on) => effectsOf(build, on).dims.length > 0);
      const answers = new Map<
        string,
        { when: Diagram; on: readonly ActiveFunction[]; drives: CellAnswer['drives'] }
      >();
      const numbers = new Map<readonly Drive[], number>();
      let walked = 0;
      const walk = (from: number, when: Diagram, on: readonly number[], taken: boolean): void => {
        if (when === NONE) return;
        if (++walked > MOST_WALKED) throw new OverBudget(tooMuch(build, showing, modules[0]));
        let next = from;
        while (taken && next < heeds.length && dims[next] !== true) next++;
        if (next === heeds.length) {
          const places = on.map((i) => heeds[i] ?? 0);
          const drives = modules.map((index) => showing.ofModule(index, places, ambient));
          const key = drives.map((one) => numbers.get(one) ?? numbers.set(one, numbers.size).size - 1).join();
          const known = answers.get(key);
          if (known !== undefined) known.when = program.diagrams.or(known.when, when);
          else answers.set(key, { when, on: on.map((i) => ons[i] ?? ''), drives });
          return;
        }
        const is = program.onVariable(ons[next] ?? '');
        const { diagrams: d } = program;
        walk(next + 1, d.and(when, is), [...on, next], taken || takes[next] === true);
        walk(next + 1, d.without(when, is), on, taken);
      };
      walk(0, reached, [], false);
      return { ambient, modules, heeds: ons, reached, answers: [...answers.values()] };
    }),
  );
}

/** Why modules cannot be looked through, by the first of them. */
function tooMuch({ placements }: Build, { modules }: OutputResolver, at = -1): string {
  const lamp = placements.find(({ id }) => id === modules[at]?.placementId);
  return `too many functions use ${lamp?.label ?? 'one lamp'} together. Make some of them exclude each other`;
}
