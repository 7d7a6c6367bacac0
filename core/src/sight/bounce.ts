import { directionOf } from '../geometry/direction.ts';
import { SKIN_M } from '../geometry/ray.ts';
import type { Solid } from '../geometry/solid.ts';
import { add, dot, length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { highestCd } from '../resolve/channels.ts';
import { meanLevel } from '../timing/timeline.ts';
import type { Vehicle } from '../vehicle/types.ts';
import type { ModuleLight } from './source.ts';
import { solidName } from './stations.ts';
import { wayOut } from './view.ts';

/**
 * Share of light that comes back in all directions alike: a dry road (CIE 144, class R3: 0.07 cd/m² for each lx, times π),
 * and a body neither black nor white.
 */
const ROAD_REFLECTANCE = 0.07 * Math.PI;
const BODY_REFLECTANCE = 0.5;

/** The eye looks so far to either side, down and up, at every so many degrees. */
const ASIDE_DEG = 75;
const DOWN_DEG = 45;
const UP_DEG = 15;
const EVERY_DEG = 5;
/** A surface is asked about this far before it, so that it does not hide its own light, m. */
const BEFORE_M = 1e-3;
/** Less is not worth a name, cd/m². */
const NAMED = 0.01;

/** A surface before an eye that lamps light, where it is brightest. */
export interface Bounce {
  readonly surface: string;
  /** At the highest instant of each lamp, and as a mean over time, cd/m². */
  readonly highest: number;
  readonly mean: number;
  /** Where it is seen. */
  readonly bearingDeg: number;
  readonly elevationDeg: number;
  /** Each lamp's share at the highest instant, the greatest first. */
  readonly byLamp: readonly { readonly placementId: string; readonly share: number }[];
}

/**
 * What lamps throw back to an eye from the road, the body and the cab by one bounce: L = ρ E / π, past the glass before it.
 * Views go out over ±75° aside, 45° down and 15° up, every 5°; of each surface the brightest one counts.
 *
 * @param solids - of the vehicle in its pose
 * @returns cd/m², the brightest surface first
 */
export function bouncesAt(
  vehicle: Vehicle,
  solids: readonly Solid[],
  lights: readonly ModuleLight[],
  eye: Vec3,
): Bounce[] {
  const brightest = new Map<string, Bounce>();
  for (let elevationDeg = -DOWN_DEG; elevationDeg <= UP_DEG; elevationDeg += EVERY_DEG)
    for (let aside = -ASIDE_DEG; aside <= ASIDE_DEG; aside += EVERY_DEG) {
      const met = firstSurface(vehicle, solids, eye, directionOf(aside, elevationDeg));
      if (met === null) continue;
      const seen = {
        ...luminanceOf(lights, met),
        surface: met.surface,
        bearingDeg: (aside + 360) % 360,
        elevationDeg,
      };
      if (seen.highest > Math.max(NAMED, brightest.get(met.surface)?.highest ?? 0))
        brightest.set(met.surface, seen);
    }
  return [...brightest.values()].toSorted((a, b) => b.highest - a.highest);
}

/** Where a view ends on something that throws light back. */
interface Surface {
  readonly surface: string;
  readonly at: Vec3;
  /** Unit vector toward the eye's side. */
  readonly facing: Vec3;
  /** Luminance for each lx on it, past the glass between, cd/m². */
  readonly perLux: number;
}

function luminanceOf(
  lights: readonly ModuleLight[],
  { at, facing, perLux }: Surface,
): Pick<Bounce, 'highest' | 'mean' | 'byLamp'> {
  const byLamp = new Map<string, number>();
  let [highest, mean] = [0, 0];
  for (const { placementId, centre, shareToward, drives } of lights) {
    const to = sub(at, centre);
    const r = length(to);
    const direction = scale(to, 1 / r);
    const cos = -dot(direction, facing);
    if (!(cos > 0)) continue;
    const perCd = (perLux * cos * shareToward(direction, r)) / r ** 2;
    if (perCd === 0) continue;
    for (const drive of drives) {
      const here = perCd * highestCd(drive);
      highest += here;
      mean += perCd * drive.peakCd * meanLevel(drive);
      byLamp.set(placementId, (byLamp.get(placementId) ?? 0) + here);
    }
  }
  return {
    highest,
    mean,
    byLamp: [...byLamp]
      .map(([placementId, here]) => ({ placementId, share: here / highest }))
      .toSorted((a, b) => b.share - a.share),
  };
}

/** The first opaque surface along a view, or the road; null where it goes out to the sky. */
function firstSurface(vehicle: Vehicle, solids: readonly Solid[], eye: Vec3, view: Vec3): Surface | null {
  const { endM, on, share } = wayOut(solids, eye, view);
  if (endM === Infinity) return null;
  const facing = on === null ? UP : enteredFace(on, eye, view);
  const reflectance = on === null ? ROAD_REFLECTANCE : BODY_REFLECTANCE;
  return {
    surface: on === null ? 'road' : solidName(vehicle, on),
    at: add(add(eye, scale(view, endM)), scale(facing, BEFORE_M)),
    facing,
    perLux: (share * reflectance) / Math.PI,
  };
}

const UP: Vec3 = [0, 0, 1];

/** The outward normal of the face by which a ray enters a convex solid. */
function enteredFace({ planes }: Solid, from: Vec3, direction: Vec3): Vec3 {
  let [latest, facing] = [-Infinity, UP];
  for (const { n, d } of planes) {
    const speed = dot(n, direction);
    const atM = speed < 0 ? (d - SKIN_M - dot(n, from)) / speed : -Infinity;
    if (atM > latest) [latest, facing] = [atM, n];
  }
  return facing;
}
