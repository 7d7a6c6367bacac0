import { posed } from '../design/lampMoves.ts';
import type { Placement } from '../design/placement.ts';
import type { Attached, Lookup } from '../resolve/lookup.ts';
import { placeModules, type PlacedModule } from '../resolve/place.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { directionOf } from '../geometry/direction.ts';
import { tableCd } from '../fixture/photometry/table.ts';
import { anglesInFrame, type AimFrame } from '../geometry/frame.ts';
import { dot, type Vec3 } from '../geometry/vec.ts';
import { poseKey } from '../state/state.ts';
import type { MovingPart, PartPosition } from '../vehicle/types.ts';
import { stopOf, zoneOf } from '../vehicle/vehicle.ts';
import {
  bodyObstacles,
  occluderAt,
  partObstacles,
  type Obstacles,
  type TransmittedShare,
} from './occlusion.ts';

/** Whole degrees of bearing in a ring. */
export const BEARINGS = 360;

/** What is kept for placements that did not move; far more than a build's poses and elevations need. */
const MOST_KEPT = 6000;

/** What a placement's light depends on, as text; a placement never changes. */
const placeKeys = new WeakMap<Placement, string>();

/** A module in its place: its beam, and what hides its light there. */
export interface PlacedBeam {
  readonly placed: PlacedModule;
  /** Share of the peak toward a direction, before lens and body. */
  readonly beam: (direction: Vec3) => number;
  /** The beam is a share by bearing times a share by elevation. */
  readonly separates: boolean;
  /** Nothing leaves the back of the lens. */
  readonly forwardOnly: boolean;
  /** Share that passes the vehicle in the pose asked for. */
  readonly past: TransmittedShare;
  /** All that `past` asks. */
  readonly obstacles: readonly Obstacles[];
}

/** A module in its place, with what each moving part hides by itself: the light in a pose is the product. */
interface Sight {
  readonly placed: PlacedModule;
  readonly beam: PlacedBeam['beam'];
  readonly separates: boolean;
  readonly forwardOnly: boolean;
  readonly pastBody: TransmittedShare;
  /** Worked out when first asked for. */
  readonly pastPart: (part: MovingPart, stop: PartPosition | null) => TransmittedShare;
}

/** A module's light around the vehicle, taken apart by what hides it. */
export interface Shades {
  readonly moduleId: string;
  /** Optical centre with the part that carries it at its stop, body axes, m. */
  readonly centre: Vec3;
  /** By bearing: share of the peak that arrives past lens and body, with every other part taken off. */
  readonly past: Float64Array;
  /** By bearing: share that passes a part at a stop; null where it hides nothing. */
  readonly ofPart: (part: MovingPart, stop: PartPosition | null) => Float64Array | null;
}

/** The fields of placements by themselves on a vehicle's body, each worked out once for each pose and elevation. */
export class BodyFields {
  readonly #lookup: Lookup;
  readonly #obstacles = new Map<string, Obstacles>();
  readonly #sights = new Map<string, readonly Sight[]>();
  readonly #shades = new Map<string, readonly Shades[]>();
  readonly #figures = new Map<string, readonly number[]>();

  constructor(lookup: Lookup) {
    this.#lookup = lookup;
  }

  /** The moving part that carries a placement; null on the body. */
  carrierOf(p: Placement): MovingPart | null {
    const { vehicle } = this.#lookup;
    const { partId } = zoneOf(vehicle, p.zoneId);
    return vehicle.parts.find((part) => part.id === partId) ?? null;
  }

  /**
   * The light of each module taken apart by what hides it, in the fixture's order.
   * @param at - the stop of the part that carries it; null when shut or on the body
   */
  shades(p: Placement, at: PartPosition | null, elevationDeg: number): readonly Shades[] {
    return remember(this.#shades, `${placeKey(p)}|${at?.id ?? ''}|${elevationDeg}`, () => {
      const ring = ringDirections(elevationDeg);
      return this.#sight(p, at).map((sight) => shadesOf(sight, p.lensTransmission, ring));
    });
  }

  /** Figures of a lamp where it stands, by their name; worked out once for each place and pose. */
  remembered(
    what: string,
    p: Placement,
    open: readonly string[],
    figures: () => readonly number[],
  ): readonly number[] {
    return remember(this.#figures, `${what}|${placeKey(p)}|${poseKey(open)}`, figures);
  }

  /** What a moving part hides at a stop; null is the body. */
  obstacles(part: MovingPart | null, stop: PartPosition | null): Obstacles {
    const { vehicle } = this.#lookup;
    return part === null
      ? remember(this.#obstacles, '', () => bodyObstacles(vehicle))
      : remember(this.#obstacles, stopKey(part, stop), () => partObstacles(vehicle, part, stop));
  }

  /** Each module in its place, with its beam and what hides it in a pose. */
  standing(placement: Placement, open: readonly string[]): readonly PlacedBeam[] {
    const stops = new Set(open);
    const p = posed(placement, stops);
    const own = this.carrierOf(p);
    const { parts } = this.#lookup.vehicle;
    const others = parts.filter((part) => part !== own);
    const obstacles = [null, ...parts].map((part) =>
      this.obstacles(part, part === null ? null : stopOf(part, stops)),
    );
    return this.#sight(p, own === null ? null : stopOf(own, stops)).map(
      ({ placed, beam, separates, forwardOnly, pastBody, pastPart }) => {
        const hiding = others.map((part) => pastPart(part, stopOf(part, stops)));
        const past: TransmittedShare = (direction, farM) => {
          let share = pastBody(direction, farM);
          for (const pastOne of hiding) {
            if (share === 0) return 0;
            share *= pastOne(direction, farM);
          }
          return share;
        };
        return { placed, beam, separates, forwardOnly, past, obstacles };
      },
    );
  }

  /** Each module in its place, the part that carries it at a stop. */
  #sight(p: Placement, at: PartPosition | null): readonly Sight[] {
    return remember(this.#sights, `${placeKey(p)}|${at?.id ?? ''}`, () => {
      const own = this.carrierOf(p);
      const body = this.obstacles(null, null);
      return placeModules(this.#lookup, p, new Set(at === null ? [] : [at.id])).map((placed): Sight => {
        const bodyAlone = occluderAt(body, placed.centre);
        const ownAlone = own === null ? null : occluderAt(this.obstacles(own, at), placed.centre);
        const known = new Map<string, TransmittedShare>();
        const attached = this.#lookup.attached(p.fixtureId, placed.module.id);
        return {
          placed,
          beam: beamOf(placed, attached),
          // By its formula a beam falls off across and up each by itself, in the lamp's own angles.
          separates: !hasFile(attached) && Math.abs(placed.frame.up[2]) > UPRIGHT,
          forwardOnly: !hasFile(attached) && placed.module.distribution.h50Deg !== null,
          pastBody:
            ownAlone === null
              ? bodyAlone
              : (direction, farM) => {
                  const share = ownAlone(direction, farM);
                  return share === 0 ? 0 : share * bodyAlone(direction, farM);
                },
          pastPart: (part, stop) =>
            remember(known, stopKey(part, stop), () => occluderAt(this.obstacles(part, stop), placed.centre)),
        };
      });
    });
  }
}

export const stopKey = (part: MovingPart, stop: PartPosition | null): string =>
  `${part.id}|${stop?.id ?? ''}`;

const rings = new Map<number, readonly Vec3[]>();

/** The directions of a ring, by whole bearing. */
export const ringDirections = (elevationDeg: number): readonly Vec3[] =>
  remember(rings, elevationDeg, () =>
    Array.from({ length: BEARINGS }, (_, b) => directionOf(b, elevationDeg)),
  );

/** What a lamp's light depends on besides the vehicle. */
export function placeKey(p: Placement): string {
  const known = placeKeys.get(p);
  if (known !== undefined) return known;
  const { fixtureId, zoneId, uM, vM, panDeg, tiltDeg, rollDeg, lensTransmission, poleM } = p;
  const where = [fixtureId, zoneId, uM, vM, panDeg, tiltDeg, rollDeg, lensTransmission, poleM];
  const key = [...where, ...p.modules.map((m) => m.insert)].join('|');
  placeKeys.set(p, key);
  return key;
}

/** Less along the aim than this goes backward for certain, however it is rounded. */
const BACKWARD = -1e-9;

/** A lamp whose own upright rises so steeply stands level: its angles are bearing and elevation, but for rounding. */
const UPRIGHT = 1 - 1e-15;

const hasFile = (attached: Attached | null): attached is Attached => attached !== null && attached.peakCd > 0;

/** The beam by its attached file, or else by its formula. */
function beamOf({ module, frame }: PlacedModule, attached: Attached | null): PlacedBeam['beam'] {
  if (!hasFile(attached))
    return (direction) => {
      // Angles cost far more than to see that nothing goes there.
      if (module.distribution.h50Deg !== null && dot(direction, frame.aim) < BACKWARD) return 0;
      const { hDeg, vDeg } = anglesInFrame(frame, direction);
      return relativeIntensity(module.distribution, hDeg, vDeg);
    };
  const { table, axis, peakCd } = attached;
  const { aim, right, up }: AimFrame = frame;
  return (d) => tableCd(table, axis, dot(d, aim), dot(d, right), dot(d, up)) / peakCd;
}

function shadesOf(
  { placed, beam, pastBody, pastPart }: Sight,
  lensTransmission: number,
  ring: readonly Vec3[],
): Shades {
  const past = new Float64Array(BEARINGS);
  for (const [b, direction] of ring.entries()) {
    const relative = beam(direction) * lensTransmission;
    if (relative > 0) past[b] = relative * pastBody(direction);
  }
  const known = new Map<string, Float64Array | null>();
  return {
    moduleId: placed.module.id,
    centre: placed.centre,
    past,
    ofPart: (part, stop) =>
      remember(known, stopKey(part, stop), () => {
        const pastOne = pastPart(part, stop);
        const share = new Float64Array(BEARINGS).fill(1);
        let hides = false;
        for (const [b, direction] of ring.entries()) {
          // Where no light comes so far the part has nothing to hide.
          if (past[b] === 0) continue;
          const passes = pastOne(direction);
          share[b] = passes;
          if (passes < 1) hides = true;
        }
        return hides ? share : null;
      }),
  };
}

export function remember<K, V>(known: Map<K, V>, key: K, make: () => V): V {
  const found = known.get(key);
  if (found !== undefined) return found;
  if (known.size >= MOST_KEPT) known.clear();
  const made = make();
  known.set(key, made);
  return made;
}

const fieldsByLookup = new WeakMap<Lookup, BodyFields>();

/** The fields of a vehicle, shared by all who ask. */
export function bodyFieldsOf(lookup: Lookup): BodyFields {
  const known = fieldsByLookup.get(lookup) ?? new BodyFields(lookup);
  fieldsByLookup.set(lookup, known);
  return known;
}
