import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { convexOf, overlapDepthM, type Convex } from '../geometry/overlap.ts';
import { combine, length, sub, type Vec3 } from '../geometry/vec.ts';
import { housingIn, TOUCH_M } from '../resolve/housing.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { footprint } from '../resolve/place.ts';
import { zoneOf } from '../vehicle/vehicle.ts';
import { addPlacement, mirrored, type NewPlacement } from './lamps.ts';

const CLOSED: ReadonlySet<string> = new Set();
/** Spots tried along each side of a zone, at most; and no nearer to each other than this, m. */
const MOST_STEPS = 50;
const LEAST_STEP_M = 0.005;
/** A lamp is rather moved along its row than out of it: a metre across counts as so many along. */
const ACROSS = 4;

export interface Spot {
  readonly uM: number;
  readonly vM: number;
}

/**
 * The spot on its zone nearest to a wanted one on which a new lamp meets no other lamp and no keep-out with everything closed;
 * null when there is none.
 *
 * @param pair - its mirror image must be free too, and clear of it
 */
export function freeSpot(build: Build, lamp: NewPlacement, pair: boolean): Spot | null {
  const lookup = lookupOf(build);
  const { vehicle } = lookup;
  const zone = zoneOf(vehicle, lamp.zoneId);
  const placed = addPlacement(build, lamp).placements.at(-1);
  if (placed === undefined) return null;
  const taken = [
    ...build.placements.filter(({ status }) => status !== 'removed').map((p) => housingIn(lookup, p, CLOSED)),
    ...vehicle.keepOuts.map(({ solid }) => convexOf(solid)),
  ].map(inBall);
  const { halfU, halfV } = footprint(lookup.fixture(lamp.fixtureId), placed.rollDeg);
  const spots = steps(placed.uM, zone.widthM / 2 - halfU).flatMap((uM) =>
    steps(placed.vM, zone.heightM / 2 - halfV).map((vM) => ({ uM, vM })),
  );
  const farM = ({ uM, vM }: Spot): number => Math.hypot(uM - placed.uM, ACROSS * (vM - placed.vM));
  const isFree = (spot: Spot): boolean => {
    const here: Placement = { ...placed, ...spot };
    const housing = inBall(housingIn(lookup, here, CLOSED));
    if (meetsAny(housing, taken)) return false;
    if (!pair) return true;
    const there = inBall(housingIn(lookup, { ...here, ...mirrored(build, here) }, CLOSED));
    return !meetsAny(there, taken) && !meetsAny(there, [housing]);
  };
  return spots.toSorted((a, b) => farM(a) - farM(b)).find(isFree) ?? null;
}

/** A body with a ball around it: most are too far from each other to look closer. */
interface Balled {
  readonly body: Convex;
  readonly centre: Vec3;
  readonly radiusM: number;
}

function inBall(body: Convex): Balled {
  const share = 1 / body.corners.length;
  const centre = combine(...body.corners.map((corner): [Vec3, number] => [corner, share]));
  return { body, centre, radiusM: Math.max(...body.corners.map((corner) => length(sub(corner, centre)))) };
}

const meetsAny = (one: Balled, others: readonly Balled[]): boolean =>
  others.some(
    (other) =>
      length(sub(one.centre, other.centre)) < one.radiusM + other.radiusM &&
      overlapDepthM(one.body, other.body) > TOUCH_M,
  );

/** Places from a wanted one out to both ends, and the ends. @param reachM - no further from the middle than this */
function steps(wantedM: number, reachM: number): number[] {
  if (reachM <= 0) return [wantedM];
  const stepM = Math.max(LEAST_STEP_M, (2 * reachM) / MOST_STEPS);
  const count = Math.ceil((2 * reachM) / stepM);
  const inside = Array.from({ length: 2 * count + 1 }, (_, i) => wantedM + (i - count) * stepM).filter(
    (atM) => Math.abs(atM) <= reachM,
  );
  return [...inside, -reachM, reachM];
}
