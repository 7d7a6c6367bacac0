import { putSet } from '../design/controlEdits.ts';
import type { ModuleSet } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { isWarning } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
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
  /** The lamp of the maker's that it is tied into. */
  readonly tiesIn: FactoryFunction | null;
  readonly module: PlacedModule;
}

/** Every module that can light. */
export function choosable(build: Build): Choosable[] {
  const lookup = lookupOf(build);
  return build.placements
    .filter((p) => p.status !== 'removed' && p.status !== 'planned')
    .flatMap((p) => {
      const fixture = lookup.fixture(p.fixtureId);
      const { zone } = placeFixture(lookup, p, SHUT);
      return placeModules(lookup, p, SHUT).flatMap((module, i) => {
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
                tiesIn: fixture.ties.length > 0 ? zone.tiesIn : null,
                module,
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
