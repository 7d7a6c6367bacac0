import type { Placement } from '../design/placement.ts';
import type { Attached, Lookup } from '../resolve/lookup.ts';
import { placeModules, type PlacedModule } from '../resolve/place.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { directionOf } from '../geometry/direction.ts';
import { tableCd } from '../fixture/photometry/table.ts';
import { anglesInFrame, type AimFrame } from '../geometry/frame.ts';
import { dot, type Vec3 } from '../geometry/vec.ts';
import { poseKey } from '../state/state.ts';
import { occluderAt, obstaclesOf, type Obstacles } from './occlusion.ts';

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

/** What a placement's light depends on, as text; a placement never changes. */
const placeKeys = new WeakMap<Placement, string>();

/** The fields of a vehicle's placements, each worked out once for each pose and elevation. */
export class Fields {
  readonly #lookup: Lookup;
  readonly #fields = new Map<string, readonly ModuleField[]>();
  readonly #obstacles = new Map<string, Obstacles>();
  readonly #placed = new Map<string, readonly Standing[]>();
  readonly #rings = new Map<number, readonly Vec3[]>();
  readonly #figures = new Map<string, readonly number[]>();
  readonly #toward = new Map<string, ReadonlyMap<string, number>>();

  constructor(lookup: Lookup) {
    this.#lookup = lookup;
  }

  /** One field for each module, in the fixture's order. */
  of(p: Placement, open: readonly string[], elevationDeg: number): readonly ModuleField[] {
    const standing = this.#key(p, open);
    return remember(this.#fields, `${standing}|${elevationDeg}`, () => {
      const ring = remember(this.#rings, elevationDeg, () =>
        Array.from({ length: BEARINGS }, (_, b) => directionOf(b, elevationDeg)),
      );
      return this.standing(p, open).map((module) => fieldOf(module, p.lensTransmission, ring));
    });
  }

  /** Figures of a lamp where it stands, by their name; worked out once for each place and pose. */
  remembered(
    what: string,
    p: Placement,
    open: readonly string[],
    figures: () => readonly number[],
  ): readonly number[] {
    return remember(this.#figures, `${what}|${this.#key(p, open)}`, figures);
  }

  /** Share of each module's peak that arrives in one direction, by module id. */
  toward(
    p: Placement,
    open: readonly string[],
    bearingDeg: number,
    elevationDeg: number,
  ): ReadonlyMap<string, number> {
    return remember(this.#toward, `${this.#key(p, open)}|${bearingDeg}|${elevationDeg}`, () => {
      const direction = directionOf(bearingDeg, elevationDeg);
      return new Map(
        this.standing(p, open).map(({ placed, beam, past }) => [
          placed.module.id,
          beam(direction) * p.lensTransmission * past(direction),
        ]),
      );
    });
  }

  /** What a lamp's light depends on besides the vehicle. */
  #key(p: Placement, open: readonly string[]): string {
    const pose = poseKey(open);
    const known = placeKeys.get(p);
    if (known !== undefined) return `${known}|${pose}`;
    const where = [
      p.fixtureId,
      p.zoneId,
      p.uM,
      p.vM,
      p.panDeg,
      p.tiltDeg,
      p.rollDeg,
      p.lensTransmission,
      p.poleM,
    ];
    const built = p.modules.map((m) => m.insert).join('');
    const key = `${where.join('|')}|${built}`;
    placeKeys.set(p, key);
    return `${key}|${pose}`;
  }

  /** The same, worked out once for each place and pose. */
  standing(p: Placement, open: readonly string[]): readonly Standing[] {
    return remember(this.#placed, this.#key(p, open), () => this.stand(p, open));
  }

  /** Each module in its place, with its beam and what hides it there. */
  stand(p: Placement, open: readonly string[]): readonly Standing[] {
    const parts = new Set(open);
    const obstacles = remember(this.#obstacles, poseKey(open), () =>
      obstaclesOf(this.#lookup.vehicle, parts),
    );
    return placeModules(this.#lookup, p, parts).map((placed) => ({
      placed,
      beam: beamOf(placed, this.#lookup.attached(p.fixtureId, placed.module.id)),
      past: occluderAt(obstacles, placed.centre),
    }));
  }
}

/** A module in its place: its beam, and what hides its light there. */
export interface Standing {
  readonly placed: PlacedModule;
  /** Share of the peak toward a direction, before lens and body. */
  readonly beam: (direction: Vec3) => number;
  /** Share that passes the body. */
  readonly past: (direction: Vec3) => number;
}

/** The beam by its attached file, or else by its formula. */
function beamOf({ module, frame }: PlacedModule, attached: Attached | null): Standing['beam'] {
  if (attached === null || attached.peakCd === 0)
    return (direction) => {
      const { hDeg, vDeg } = anglesInFrame(frame, direction);
      return relativeIntensity(module.distribution, hDeg, vDeg);
    };
  const { table, axis, peakCd } = attached;
  const { aim, right, up }: AimFrame = frame;
  return (d) => tableCd(table, axis, dot(d, aim), dot(d, right), dot(d, up)) / peakCd;
}

function fieldOf(
  { placed, beam, past }: Standing,
  lensTransmission: number,
  ring: readonly Vec3[],
): ModuleField {
  const share = new Float64Array(BEARINGS);
  for (const [b, direction] of ring.entries()) {
    const relative = beam(direction) * lensTransmission;
    if (relative > 0) share[b] = relative * past(direction);
  }
  return { moduleId: placed.module.id, heightM: placed.centre[2], share };
}

function remember<K, V>(known: Map<K, V>, key: K, make: () => V): V {
  const found = known.get(key);
  if (found !== undefined) return found;
  if (known.size >= MOST_KEPT) known.clear();
  const made = make();
  known.set(key, made);
  return made;
}

const fieldsByLookup = new WeakMap<Lookup, Fields>();

/** The fields of a build's lamps, shared by all who ask. */
export function fieldsOf(lookup: Lookup): Fields {
  const known = fieldsByLookup.get(lookup) ?? new Fields(lookup);
  fieldsByLookup.set(lookup, known);
  return known;
}
