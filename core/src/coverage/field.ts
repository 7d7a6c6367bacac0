import { placeModules, type PlacedModule } from '../build/place.ts';
import type { Placement } from '../build/schema.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { directionOf } from '../geometry/direction.ts';
import { anglesInFrame } from '../geometry/frame.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { posedSolids } from '../vehicle/vehicle.ts';
import { layOut, occluderAt, type Obstacles } from './occlusion.ts';

/** Whole degrees of bearing in a ring. */
export const BEARINGS = 360;

/** What one module sends around the vehicle at one elevation. */
export interface ModuleField {
  readonly moduleId: string;
  /** Height of the optical centre, m. */
  readonly heightM: number;
  /** By bearing 0–359: share of the channel's peak that arrives, past lens, glass and body. */
  readonly share: Float64Array;
}

/** Fields kept, for placements that did not move; far more than a build's poses and elevations need. */
const MOST_KEPT = 6000;

/** The fields of a vehicle's placements, each worked out once for each pose and elevation. */
export class Fields {
  readonly #vehicle: Vehicle;
  readonly #fields = new Map<string, readonly ModuleField[]>();
  readonly #obstacles = new Map<string, Obstacles>();
  readonly #placed = new Map<string, readonly Standing[]>();
  readonly #rings = new Map<number, readonly Vec3[]>();

  constructor(vehicle: Vehicle) {
    this.#vehicle = vehicle;
  }

  /** One field for each module, in the fixture's order. */
  of(p: Placement, open: readonly string[], elevationDeg: number): readonly ModuleField[] {
    const pose = open.toSorted().join('+');
    const where = [p.fixtureId, p.zoneId, p.uM, p.vM, p.panDeg, p.tiltDeg, p.rollDeg, p.lensTransmission];
    const standing = `${where.join('|')}|${pose}`;
    return remember(this.#fields, `${standing}|${elevationDeg}`, () => {
      const ring = remember(this.#rings, elevationDeg, () =>
        Array.from({ length: BEARINGS }, (_, b) => directionOf(b, elevationDeg)),
      );
      return remember(this.#placed, standing, () => this.#stand(p, open, pose)).map(({ placed, past }) =>
        fieldOf(placed, past, p.lensTransmission, ring),
      );
    });
  }

  #stand(p: Placement, open: readonly string[], pose: string): Standing[] {
    const parts = new Set(open);
    const obstacles = remember(this.#obstacles, pose, () => layOut(posedSolids(this.#vehicle, parts)));
    return placeModules(this.#vehicle, p, parts).map((placed) => ({
      placed,
      past: occluderAt(obstacles, placed.centre),
    }));
  }
}

/** A module in its place, with what hides its light there. */
interface Standing {
  readonly placed: PlacedModule;
  readonly past: (direction: Vec3) => number;
}

function fieldOf(
  { module, centre, frame }: PlacedModule,
  past: (direction: Vec3) => number,
  lensTransmission: number,
  ring: readonly Vec3[],
): ModuleField {
  const share = new Float64Array(BEARINGS);
  for (const [b, direction] of ring.entries()) {
    const { hDeg, vDeg } = anglesInFrame(frame, direction);
    const relative = relativeIntensity(module.distribution, hDeg, vDeg) * lensTransmission;
    if (relative > 0) share[b] = relative * past(direction);
  }
  return { moduleId: module.id, heightM: centre[2], share };
}

function remember<K, V>(known: Map<K, V>, key: K, make: () => V): V {
  const found = known.get(key);
  if (found !== undefined) return found;
  if (known.size >= MOST_KEPT) known.clear();
  const made = make();
  known.set(key, made);
  return made;
}

const fieldsByVehicle = new WeakMap<Vehicle, Fields>();

/** The vehicle's fields, shared by all who ask. */
export function fieldsOf(vehicle: Vehicle): Fields {
  const known = fieldsByVehicle.get(vehicle) ?? new Fields(vehicle);
  fieldsByVehicle.set(vehicle, known);
  return known;
}
