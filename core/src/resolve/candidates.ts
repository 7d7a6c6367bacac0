import type { Build } from '../design/schema.ts';
import type { LampUse, Side } from '../design/lampSets.ts';
import { length, sub, type Vec3 } from '../geometry/vec.ts';
import type { OpenParts } from '../vehicle/vehicle.ts';
import type { Colour } from '../words/colour.ts';
import type { Face } from '../words/face.ts';
import type { FactoryFunction } from '../words/factoryFunction.ts';
import { isWarning } from './channels.ts';
import { lookupOf } from './lookup.ts';
import { placeFixture, placeModules, type PlacedModule } from './place.ts';

/** Nearer to the centre plane than this a lamp is on neither side, m. */
const MIDDLE_M = 0.15;
/** A lamp whose aim turns less than this from an axis shines along it. */
const ALONG = 0.7;
/** A lamp nearer than this to a factory lamp is beside it, m. */
const BESIDE_M = 0.6;
const CLOSED: OpenParts = new Set();

/** What candidates are found from. */
export type Equipped = Pick<Build, 'vehicle' | 'fixtures' | 'photometry' | 'placements'>;

/** A module as lamp sets choose by: what it has, where it is, where it shines. */
export interface Candidate {
  readonly placementId: string;
  readonly moduleId: string;
  readonly use: LampUse;
  /** What it may show here. */
  readonly colours: readonly Colour[];
  readonly groupId: string | null;
  readonly zoneId: string;
  readonly partId: string | null;
  /** Its part hides it while closed. */
  readonly covered: boolean;
  /** The factory lamp that it is tied into. */
  readonly tied: FactoryFunction | null;
  readonly side: Side;
  /** Where it is with these parts open. */
  readonly module: PlacedModule;
  readonly isBeside: (does: FactoryFunction) => boolean;
}

/** Every module that can light, by placements and open parts. */
const known = new WeakMap<
  Equipped['placements'],
  { readonly of: Equipped; readonly byOpen: Map<string, readonly Candidate[]> }
>();

/** Every module that can light: of lamps neither removed nor planned. @param open - stops at which parts are */
export function candidatesOf(build: Equipped, open: OpenParts = CLOSED): readonly Candidate[] {
  let entry = known.get(build.placements);
  if (
    entry?.of.vehicle !== build.vehicle ||
    entry.of.fixtures !== build.fixtures ||
    entry.of.photometry !== build.photometry
  ) {
    entry = { of: build, byOpen: new Map() };
    known.set(build.placements, entry);
  }
  const key = [...open].toSorted().join();
  const before = entry.byOpen.get(key);
  if (before !== undefined) return before;
  const found = findCandidates(build, open);
  entry.byOpen.set(key, found);
  return found;
}

function findCandidates(build: Equipped, open: OpenParts): Candidate[] {
  const lookup = lookupOf(build);
  const isBeside = (does: FactoryFunction, at: Vec3): boolean =>
    lookup.vehicle.factoryLamps
      .filter((lamp) => lamp.does === does)
      .flatMap(({ outline }) => outline)
      .some((corner) => corner[1] * at[1] > 0 && length(sub(at, corner)) <= BESIDE_M);
  return build.placements
    .filter((p) => p.status !== 'removed' && p.status !== 'planned')
    .flatMap((p) => {
      const fixture = lookup.fixture(p.fixtureId);
      const { zone } = placeFixture(lookup, p, CLOSED);
      const use = fixture.kind === 'factory' ? 'factory' : isWarning(fixture) ? 'warning' : 'light';
      return placeModules(lookup, p, open).flatMap((module, i): Candidate[] => {
        const setup = p.modules[i];
        if (setup === undefined) return [];
        const y = module.centre[1];
        return [
          {
            placementId: p.id,
            moduleId: setup.id,
            use,
            colours: setup.colours.filter((c) => !setup.disabled.includes(c)),
            groupId: setup.groupId,
            zoneId: p.zoneId,
            partId: zone.partId,
            covered: zone.face === 'inside' && zone.partId !== null,
            tied: fixture.ties.length > 0 ? zone.tiesIn : null,
            side: y > MIDDLE_M ? 'left' : y < -MIDDLE_M ? 'right' : 'middle',
            module,
            isBeside: (does) => isBeside(does, module.centre),
          },
        ];
      });
    });
}

/** Whether a module shines along an axis of the vehicle. */
export function shinesTo({ module }: Candidate, face: Face): boolean {
  const [x, y] = module.frame.aim;
  switch (face) {
    case 'front':
      return x > ALONG;
    case 'rear':
      return x < -ALONG;
    case 'left':
      return y > ALONG;
    case 'right':
      return y < -ALONG;
  }
}
