import { putSet } from '../design/controlEdits.ts';
import type { ModuleSet } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { isWarning } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { length, sub, type Vec3 } from '../geometry/vec.ts';
import { placeFixture, placeModules, type PlacedModule } from '../resolve/place.ts';
import type { FactoryFunction } from '../words/factoryFunction.ts';
import type { Colour } from '../words/colour.ts';

/** Nearer to the centre plane than this a lamp is on neither side, m. */
const MIDDLE_M = 0.15;
/** A lamp whose aim turns less than this from an axis shines along it. */
const ALONG = 0.7;
const SHUT: ReadonlySet<string> = new Set();

/** A module as sets are chosen by: what it has, where it is, where it shines. */
export interface Choosable {
  readonly placementId: string;
  readonly moduleId: string;
  readonly colours: readonly Colour[];
  readonly warns: boolean;
  readonly factory: boolean;
  readonly partId: string | null;
  /** It stands where its part covers it while shut. */
  readonly covered: boolean;
  /** The lamp of the maker's that it is tied into. */
  readonly tiesIn: FactoryFunction | null;
  readonly module: PlacedModule;
  /** To the nearest lamp of the maker's for that, on its side, m; Infinity where there is none. */
  readonly fromMakersM: (does: FactoryFunction) => number;
}

/** Every module that can light. @param open - the stops at which parts stand; all shut when not said */
export function choosable(build: Build, open: ReadonlySet<string> = SHUT): Choosable[] {
  const lookup = lookupOf(build);
  const fromMakersM = (does: FactoryFunction, at: Vec3): number =>
    Math.min(
      ...lookup.vehicle.factoryLamps
        .filter((lamp) => lamp.does === does)
        .flatMap(({ outline }) => outline)
        .filter((corner) => corner[1] * at[1] > 0)
        .map((corner) => length(sub(at, corner))),
    );
  return build.placements
    .filter((p) => p.status !== 'removed' && p.status !== 'planned')
    .flatMap((p) => {
      const fixture = lookup.fixture(p.fixtureId);
      const { zone } = placeFixture(lookup, p, SHUT);
      return placeModules(lookup, p, open).flatMap((module, i) => {
        const setup = p.modules[i];
        return setup === undefined
          ? []
          : [
              {
                placementId: p.id,
                moduleId: setup.id,
                colours: setup.colours,
                warns: isWarning(fixture),
                factory: fixture.kind === 'factory',
                partId: zone.partId,
                covered: zone.face === 'inside' && zone.partId !== null,
                tiesIn: fixture.ties.length > 0 ? zone.tiesIn : null,
                module,
                fromMakersM: (does) => fromMakersM(does, module.centre),
              },
            ];
      });
    });
}

export const shinesAhead = ({ module }: Choosable): boolean => module.frame.aim[0] > ALONG;
export const shinesBack = ({ module }: Choosable): boolean => module.frame.aim[0] < -ALONG;
export const shinesLeft = ({ module }: Choosable): boolean => module.frame.aim[1] > ALONG;
export const shinesRight = ({ module }: Choosable): boolean => module.frame.aim[1] < -ALONG;
export const standsLeft = ({ module }: Choosable): boolean => module.centre[1] > MIDDLE_M;
export const standsRight = ({ module }: Choosable): boolean => module.centre[1] < -MIDDLE_M;

/** A set of what is chosen, in place of the one of that id. */
export function setOf(
  build: Build,
  id: string,
  name: string,
  chosen: (module: Choosable) => boolean,
): { readonly build: Build; readonly set: ModuleSet } {
  const modules = choosable(build)
    .filter(chosen)
    .map(({ placementId, moduleId }) => ({ placementId, moduleId }));
  const set = { id, name, modules };
  return { build: putSet(build, set), set };
}

/** Lamps less than this below the highest are as high, m. */
const AS_HIGH_M = 0.15;

/** Of some modules those that stand highest. */
function highest(modules: readonly Choosable[]): Choosable[] {
  const top = Math.max(...modules.map(({ module }) => module.centre[2]));
  return modules.filter(({ module }) => module.centre[2] >= top - AS_HIGH_M);
}

/** Of the highest modules those of the foremost lamp: the others go on with what they do. */
export function foremostOfHighest(modules: readonly Choosable[]): Choosable[] {
  const high = highest(modules);
  const front = high.reduce<Choosable | null>(
    (a, b) => (a === null || b.module.centre[0] > a.module.centre[0] ? b : a),
    null,
  );
  return high.filter(({ placementId }) => placementId === front?.placementId);
}

/** Of the highest modules the inner half, from the nearest to the centre plane out; the outer ones go on. */
export function innerOfHighest(modules: readonly Choosable[]): Choosable[] {
  const high = highest(modules);
  const outM = high.map(({ module }) => Math.abs(module.centre[1]));
  const limit = Math.max(Math.min(...outM) + 0.01, Math.max(...outM) / 2);
  return high.filter(({ module }) => Math.abs(module.centre[1]) <= limit);
}

/** A lamp nearer than this to one of the maker's stands beside it, m. */
export const BESIDE_M = 0.6;

/** Of some modules those beside lamps of the maker's; the lowest where none is. */
export function besideMakers(modules: readonly Choosable[], does: FactoryFunction): Choosable[] {
  const beside = modules.filter((m) => m.fromMakersM(does) <= BESIDE_M);
  if (beside.length > 0) return beside;
  const low = Math.min(...modules.map(({ module }) => module.centre[2]));
  return modules.filter(({ module }) => module.centre[2] <= low + AS_HIGH_M);
}

/** Whether a module is one of some. */
export function isOneOf(these: readonly Choosable[]): (m: Choosable) => boolean {
  const keys = new Set(these.map((m) => `${m.placementId}/${m.moduleId}`));
  return (m) => keys.has(`${m.placementId}/${m.moduleId}`);
}

/** A set of modules that are known. */
export const setOfThese = (
  build: Build,
  id: string,
  name: string,
  these: readonly Choosable[],
): { readonly build: Build; readonly set: ModuleSet } => setOf(build, id, name, isOneOf(these));
