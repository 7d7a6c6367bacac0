import { assignDefaults } from '../arrange/assignDefaults.ts';
import { addPartner, addPlacement } from '../arrange/lamps.ts';
import type { Approach } from '../design/approach.ts';
import type { ActiveFunction } from '../design/controls.ts';
import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { directionOf } from '../geometry/direction.ts';
import { dot } from '../geometry/vec.ts';
import type { Fixture } from '../fixture/types.ts';
import { isWarning } from '../resolve/channels.ts';
import { lookupOf, type Lookup } from '../resolve/lookup.ts';
import { footprint, misfit, placeFixture } from '../resolve/place.ts';
import { Approaches } from '../sight/approach.ts';
import type { State } from '../state/state.ts';
import type { MountZone } from '../vehicle/types.ts';
import { LAYOUT_CHECKS } from './layout/layout.ts';
import { LayoutSubject } from './layout/subject.ts';

/** Lamps to add: a fixture at a place of a zone, and its mirror image where that is another place. */
export interface MoreLamps {
  readonly fixtureId: string;
  readonly zoneId: string;
  readonly uM: number;
  readonly pair: boolean;
}

/** What one more pair, or one more bar, would do for an approach. */
export interface WouldGain extends MoreLamps {
  readonly gainM: number;
  /** Of what is added, minor units. */
  readonly priceMinor: number;
}

/** Adds lamps in the group, colours and pattern of their neighbours. @param id - of the first; its partner's ends in -x */
export function addMore(
  build: Build,
  { fixtureId, zoneId, uM, pair }: MoreLamps,
  id: string,
  on: readonly ActiveFunction[],
): Build {
  const placed = addPlacement(build, { id, fixtureId, zoneId, uM, vM: 0 });
  const partnerId = `${id}-x`;
  return pair
    ? assignDefaults(addPartner(placed, id, partnerId), [id, partnerId], on)
    : assignDefaults(placed, [id], on);
}

/** A zone looks toward an approach within this: the cosine of 50°. */
const TOWARD = Math.cos((50 * Math.PI) / 180);
/** No more places are tried: the highest. */
const MOST_TRIED = 8;
/** Less is no gain, m. */
const LEAST_GAIN_M = 1;
/** Places along a zone are tried from its ends inward at so many steps to each side. */
const STEPS = 8;
/** Bars of at least so many modules can show an arrow. */
const ARROW_MODULES = 5;
/** A lamp as near to the middle is its own mirror image, m. */
const MIDDLE_M = 0.01;
/** Of the lamp that is tried, and of its mirror image. */
const NEW_ID = 'one-more';
const PARTNER_ID = `${NEW_ID}-x`;
const SHUT: ReadonlySet<string> = new Set();

/**
 * What an extra pair of the head that the build has most of, or an extra bar, would gain an approach, by adding it where it
 * fits and no check of the layout blocks or warns of it. The most gained first. Between two it can be given up.
 */
export function* estimateGain(
  build: Build,
  state: State,
  approach: Approach,
): Generator<number, WouldGain[]> {
  const lookup = lookupOf(build);
  const seenM = (of: Build): number => new Approaches(of, state).result(approach).sightings[0].seenM;
  const before = seenM(build);
  const candidates = candidatesFor(build, lookup, approach.bearingDeg);
  const found: WouldGain[] = [];
  for (const [i, { fixture, zone }] of candidates.entries()) {
    const more = clearPlace(build, lookup, fixture, zone);
    if (more !== null) {
      const gainM = seenM(addMore(build, more, NEW_ID, state.on)) - before;
      if (gainM >= LEAST_GAIN_M)
        found.push({ ...more, gainM, priceMinor: fixture.priceMinor * (more.pair ? 2 : 1) });
    }
    yield (i + 1) / candidates.length;
  }
  return found.toSorted((a, b) => b.gainM - a.gainM);
}

interface Candidate {
  readonly fixture: Fixture;
  readonly zone: MountZone;
}

/** Zones that look there, the highest first, each with the head that the build has most of; at the rear a bar besides. */
function candidatesFor(build: Build, lookup: Lookup, bearingDeg: number): Candidate[] {
  const toward = directionOf(bearingDeg, 0);
  const zones = lookup.vehicle.zones
    .filter(({ n, face, tiesIn }) => face !== 'inside' && tiesIn === null && dot(n, toward) > TOWARD)
    .toSorted((a, b) => b.centre[2] - a.centre[2]);
  const counts = new Map<string, number>();
  for (const { fixtureId } of build.placements) counts.set(fixtureId, (counts.get(fixtureId) ?? 0) + 1);
  const heads = [...counts]
    .toSorted(([, a], [, b]) => b - a)
    .map(([id]) => lookup.fixture(id))
    .filter((fixture) => fixture.kind === 'head' && isWarning(fixture));
  const bars = lookup.fixtures.filter(
    ({ kind, stands, modules }) => kind === 'rear bar' && stands === 'out' && modules.length >= ARROW_MODULES,
  );
  return zones.slice(0, MOST_TRIED).flatMap((zone) => {
    const fits = (fixture: Fixture): boolean => misfit(fixture, zone) === null;
    const bar = zone.face === 'rear' ? bars.find(fits) : undefined;
    return [heads.find(fits), bar].flatMap((fixture) => (fixture === undefined ? [] : [{ fixture, zone }]));
  });
}

/** The outermost place of a zone where a fixture and its mirror image stand clear; null where there is none. */
function clearPlace(build: Build, lookup: Lookup, fixture: Fixture, zone: MountZone): MoreLamps | null {
  const reachM = Math.max(0, zone.widthM / 2 - footprint(fixture).halfU);
  for (let step = STEPS; step >= 0; step--) {
    const more = { fixtureId: fixture.id, zoneId: zone.id, uM: (reachM * step) / STEPS };
    const placed = addPlacement(build, { ...more, id: NEW_ID, vM: 0 });
    const pair = placed.placements.some((p) => p.id === NEW_ID && besideMiddle(lookup, p));
    const tried = pair ? addPartner(placed, NEW_ID, PARTNER_ID) : placed;
    if (standClear(tried)) return { ...more, pair };
  }
  return null;
}

/** A lamp that is not its own mirror image. */
const besideMiddle = (lookup: Lookup, p: Placement): boolean =>
  Math.abs(placeFixture(lookup, p, SHUT).base[1]) >= MIDDLE_M;

/** What would block or warn about a lamp where it is put. */
const TOLD = LAYOUT_CHECKS.filter(({ severity }) => severity === 'blocks' || severity === 'warns');

/** Whether no check of the layout blocks or warns of the new lamps, in themselves or beside others. */
function standClear(build: Build): boolean {
  const subject = new LayoutSubject(build);
  const isNew = (id: string): boolean => id === NEW_ID || id === PARTNER_ID;
  return TOLD.every((check) =>
    check.findIssues(subject).every(({ channels }) => channels?.some((c) => isNew(c.placementId)) !== true),
  );
}
