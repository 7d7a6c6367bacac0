import type { Build } from '../design/schema.ts';
import { SKIN_M } from '../geometry/ray.ts';
import type { Solid } from '../geometry/solid.ts';
import { add, dot, scale, type Vec3 } from '../geometry/vec.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { solidName, solidsIn } from './stations.ts';
import { wayOut } from './view.ts';

/** What road and ground are called among surfaces. */
export const ROAD = 'road';
/**
 * Share of light that comes back in all directions alike: a dry road (CIE 144, class R3: 0.07 cd/m² for each lx, times π),
 * and a body neither black nor white.
 */
const ROAD_REFLECTANCE = 0.07 * Math.PI;
const BODY_REFLECTANCE = 0.5;
/** A surface is asked about this far before it, so that it does not hide its own light, m. */
const BEFORE_M = 1e-3;
const UP: Vec3 = [0, 0, 1];

/** Where a view ends on something that throws light back. */
export interface Surface {
  readonly surface: string;
  readonly at: Vec3;
  /** Unit vector toward the side that is looked at. */
  readonly facing: Vec3;
  /** Luminance for each lx on it, past the glass between, cd/m². */
  readonly perLux: number;
}

/** What throws light back around a vehicle in its pose: road, body, and what stands open. */
export class Surfaces {
  readonly #vehicle: Vehicle;
  readonly #solids: readonly Solid[];
  readonly #shares: ReadonlyMap<string, number>;

  constructor(vehicle: Vehicle, solids: readonly Solid[], finishes: Build['finishes']) {
    this.#vehicle = vehicle;
    this.#solids = solids;
    this.#shares = new Map(finishes.map(({ surface, percent }) => [surface, percent / 100]));
  }

  static of({ vehicle, finishes }: Build, open: readonly string[]): Surfaces {
    const body = vehicleOf(vehicle);
    return new Surfaces(body, solidsIn(body, open), finishes);
  }

  /** What stands there, glass too. */
  get solids(): readonly Solid[] {
    return this.#solids;
  }

  /** What a solid counts as. */
  nameOf(solid: Solid): string {
    return solidName(this.#vehicle, solid);
  }

  /** The share of the light on it that a surface throws back: as the build says, or as is usual. */
  reflectanceOf(surface: string): number {
    return this.#shares.get(surface) ?? (surface === ROAD ? ROAD_REFLECTANCE : BODY_REFLECTANCE);
  }

  /** The first opaque surface along a view, or the road; null where it goes out to the sky. @param view - unit vector */
  first(eye: Vec3, view: Vec3): Surface | null {
    const { endM, on, share } = wayOut(this.#solids, eye, view);
    if (endM === Infinity) return null;
    const facing = on === null ? UP : enteredFace(on, eye, view);
    const surface = on === null ? ROAD : this.nameOf(on);
    return {
      surface,
      at: add(add(eye, scale(view, endM)), scale(facing, BEFORE_M)),
      facing,
      perLux: (share * this.reflectanceOf(surface)) / Math.PI,
    };
  }
}

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
