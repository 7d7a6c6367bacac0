import { posed } from '../design/lampMoves.ts';
import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { ballAround, type Ball } from '../geometry/ball.ts';
import { bearingOf, directionOf } from '../geometry/direction.ts';
import type { Solid } from '../geometry/solid.ts';
import { sub, type Vec3 } from '../geometry/vec.ts';
import { lookupOf, type Lookup } from '../resolve/lookup.ts';
import { poseKey } from '../state/state.ts';
import type { MovingPart, PartPosition } from '../vehicle/types.ts';
import { stopOf, stopsOf, stopsWithShut } from '../vehicle/vehicle.ts';
import {
  BEARINGS,
  bodyFieldsOf,
  remember,
  ringDirections,
  stopKey,
  type BodyFields,
  type Shades,
  type PlacedBeam,
} from './field.ts';
import { hasHousing, housingOf } from './housings.ts';
import { HalfCircles } from './halfCircles.ts';
import { layOut, occluderAt, type Obstacles, type TransmittedShare } from './occlusion.ts';

/** What one module sends around the vehicle at one elevation. */
export interface ModuleField {
  readonly moduleId: string;
  /** Height of the optical centre, m. */
  readonly heightM: number;
  /** By bearing 0–359: share of the channel's peak that arrives, past lens, glass and body. */
  readonly share: Float64Array;
}

/** Allowed for, so that rounding never passes over a housing that a ring touches, degrees. */
const SLACK_DEG = 0.01;
const DEG = 180 / Math.PI;

/** The housing of a lamp where it stands, and the ball around it. */
interface Housing extends Ball {
  readonly placementId: string;
  readonly solid: Solid;
  readonly obstacles: Obstacles;
}

/** The fields of a build's lamps among each other: past the body and past the housings of all other lamps. */
export class LampFields {
  readonly #lookup: Lookup;
  readonly #body: BodyFields;
  /** Lamps whose housings hide light, by the part that carries them; null is the body. */
  readonly #riders = new Map<MovingPart | null, Placement[]>();
  readonly #partStops: ReadonlySet<string>;
  readonly #housings = new Map<string, readonly Housing[]>();
  readonly #fields = new Map<string, readonly ModuleField[]>();
  readonly #shades = new Map<string, readonly Shades[]>();
  readonly #most = new Map<string, ReadonlyMap<string, Float64Array>>();
  readonly #least = new Map<string, ReadonlyMap<string, Float64Array>>();
  readonly #standing = new Map<string, readonly PlacedBeam[]>();
  readonly #toward = new Map<string, ReadonlyMap<string, number>>();

  constructor(lookup: Lookup, placements: readonly Placement[]) {
    this.#lookup = lookup;
    this.#body = bodyFieldsOf(lookup);
    this.#partStops = new Set(stopsOf(lookup.vehicle).map(({ id }) => id));
    for (const p of placements.filter(hasHousing)) {
      const carrier = this.carrierOf(p);
      this.#riders.set(carrier, [...(this.#riders.get(carrier) ?? []), p]);
    }
  }

  /** The moving part that carries a placement; null on the body. */
  carrierOf(p: Placement): MovingPart | null {
    return this.#body.carrierOf(p);
  }

  /** One field for each module, in the fixture's order. */
  of(p: Placement, open: readonly string[], elevationDeg: number): readonly ModuleField[] {
    return remember(this.#fields, `${p.id}|${poseKey(open)}|${elevationDeg}`, () => {
      const stops = new Set(open);
      const own = this.carrierOf(p);
      const others = this.#lookup.vehicle.parts.filter((part) => part !== own);
      const moved = open.filter((id) => !this.#partStops.has(id));
      const at = own === null ? null : stopOf(own, stops);
      return this.shades(p, at, elevationDeg, moved).map((shades) => {
        const hiding = others.flatMap((part) => shades.ofPart(part, stopOf(part, stops)) ?? []);
        return {
          moduleId: shades.moduleId,
          heightM: shades.centre[2],
          share: product(shades.past, hiding),
        };
      });
    });
  }

  /**
   * Works out the fields of a placement at several elevations together, in a fraction of the time of one by one.
   * @param elevationsDeg - ascending
   */
  prepare(placement: Placement, open: readonly string[], elevationsDeg: readonly number[]): void {
    const keys = elevationsDeg.map((deg) => `${placement.id}|${poseKey(open)}|${deg}`);
    if (keys.every((key) => this.#fields.has(key))) return;
    const { mesh } = this.#lookup.vehicle;
    const rings = elevationsDeg.map(ringDirections);
    const modules = this.standing(placement, open).map((standing) => {
      const { placed, obstacles } = standing;
      const { centre } = placed;
      const circles = new HalfCircles(obstacles, centre, standing.forwardOnly ? placed.frame.aim : null);
      const sent = sentBy(standing, placement.lensTransmission, elevationsDeg, rings);
      const all = new Float64Array(BEARINGS * elevationsDeg.length);
      const column = new Float64Array(elevationsDeg.length);
      for (let b = 0; b < BEARINGS; b++) {
        if (!sent(b, column)) continue;
        circles.dim(b, elevationsDeg, column);
        for (let row = 0; row < column.length; row++) {
          const passes = column[row] ?? 0;
          if (passes === 0) continue;
          const direction = mesh === null ? undefined : rings[row]?.[b];
          if (mesh === null || direction === undefined || !mesh.hides(centre, direction))
            all[row * BEARINGS + b] = passes;
        }
      }
      const shares = elevationsDeg.map((_, row) => all.subarray(row * BEARINGS, (row + 1) * BEARINGS));
      return { moduleId: placed.module.id, heightM: centre[2], shares };
    });
    for (const [row, key] of keys.entries())
      remember(this.#fields, key, () =>
        modules.map(({ moduleId, heightM, shares }) => ({
          moduleId,
          heightM,
          share: shares[row] ?? new Float64Array(BEARINGS),
        })),
      );
  }

  /**
   * The light of each module taken apart by what hides it, in the fixture's order: a housing hides together with the
   * part that carries it.
   * @param at - the stop of the part that carries it; null when shut or on the body
   * @param moved - stops of lamps that are turned or raised on the spot
   */
  shades(
    placement: Placement,
    at: PartPosition | null,
    elevationDeg: number,
    moved: readonly string[] = [],
  ): readonly Shades[] {
    const key = `${placement.id}|${at?.id ?? ''}|${elevationDeg}|${poseKey(moved)}`;
    return remember(this.#shades, key, () => {
      const p = posed(placement, new Set(moved));
      const own = this.carrierOf(p);
      const carriers = own === null ? [null] : [null, own];
      return this.#body.shades(p, at, elevationDeg).map((bare): Shades => {
        const meets = (part: MovingPart | null, stop: PartPosition | null): readonly Housing[] =>
          this.#on(part, stop, moved).filter(
            (housing) => housing.placementId !== p.id && meetsRing(housing, bare.centre, elevationDeg),
          );
        const known = new Map<string, Float64Array | null>();
        const near = carriers.flatMap((part) => meets(part, at));
        const past = behind(bare.past, near, bare.centre, elevationDeg) ?? bare.past;
        return {
          ...bare,
          past,
          ofPart: (part, stop) =>
            remember(known, stopKey(part, stop), () => {
              const alone = bare.ofPart(part, stop);
              const met = meets(part, stop);
              if (met.length === 0) return alone;
              // Where no light comes so far the part has nothing to hide.
              const lit = (alone ?? new Float64Array(BEARINGS).fill(1)).map((s, b) =>
                past[b] === 0 ? 0 : s,
              );
              const left = behind(lit, met, bare.centre, elevationDeg);
              return left?.map((s, b) => (past[b] === 0 ? 1 : s)) ?? alone;
            }),
        };
      });
    });
  }

  /**
   * By module id and bearing: the largest share that arrives in any pose of the moving parts, or more than that, never
   * less; while lamps that can be turned or raised on the spot stand as they were put.
   */
  most(p: Placement, elevationDeg: number): ReadonlyMap<string, Float64Array> {
    return remember(this.#most, `${p.id}|${elevationDeg}`, () => this.#over(p, elevationDeg, larger));
  }

  /** By module id and bearing: the least share that arrives in any such pose, or less than that, never more. */
  least(p: Placement, elevationDeg: number): ReadonlyMap<string, Float64Array> {
    return remember(this.#least, `${p.id}|${elevationDeg}`, () => this.#over(p, elevationDeg, smaller));
  }

  /** What arrives over all poses, each part taken by itself. */
  #over(p: Placement, elevationDeg: number, of: Taken): Map<string, Float64Array> {
    const own = this.carrierOf(p);
    const others = this.#lookup.vehicle.parts.filter((part) => part !== own);
    const over = new Map<string, Float64Array>();
    for (const at of own === null ? [null] : stopsWithShut(own))
      for (const shades of this.shades(p, at, elevationDeg)) {
        const passing = others.flatMap((part) => passingOf(shades, part, of) ?? []);
        const share = product(shades.past, passing);
        const known = over.get(shades.moduleId);
        over.set(shades.moduleId, known === undefined ? share : of(known, share));
      }
    return over;
  }

  /** Share of each module's peak that arrives in one direction, by module id. */
  toward(
    p: Placement,
    open: readonly string[],
    bearingDeg: number,
    elevationDeg: number,
  ): ReadonlyMap<string, number> {
    const key = `${p.id}|${poseKey(open)}|${bearingDeg}|${elevationDeg}`;
    return remember(this.#toward, key, () => {
      const direction = directionOf(bearingDeg, elevationDeg);
      return new Map(
        this.standing(p, open).map(({ placed, beam, past }) => {
          const sent = beam(direction) * p.lensTransmission;
          return [placed.module.id, sent === 0 ? 0 : sent * past(direction)];
        }),
      );
    });
  }

  /** Each module in its place, with its beam and what hides it in a pose. */
  standing(p: Placement, open: readonly string[]): readonly PlacedBeam[] {
    return remember(this.#standing, `${p.id}|${poseKey(open)}`, () => {
      const others = this.#othersOf(p, open);
      const apart = others.map(({ obstacles }) => obstacles);
      let together: Obstacles | null = null;
      return this.#body.standing(p, open).map((bare): PlacedBeam => {
        let pastHousings: TransmittedShare | null = null;
        return {
          ...bare,
          obstacles: [...bare.obstacles, ...apart],
          past: (direction, farM) => {
            const share = bare.past(direction, farM);
            if (share === 0) return 0;
            together ??= layOut(others.map(({ solid }) => solid));
            pastHousings ??= occluderAt(together, bare.placed.centre);
            return share * pastHousings(direction, farM);
          },
        };
      });
    });
  }

  /** The housings of all other lamps in a pose. */
  #othersOf(p: Placement, open: readonly string[]): readonly Housing[] {
    const stops = new Set(open);
    const moved = open.filter((id) => !this.#partStops.has(id));
    return [null, ...this.#lookup.vehicle.parts]
      .flatMap((part) => this.#on(part, part === null ? null : stopOf(part, stops), moved))
      .filter(({ placementId }) => placementId !== p.id);
  }

  /** The housings that a part carries at a stop; null is the body. */
  #on(part: MovingPart | null, stop: PartPosition | null, moved: readonly string[]): readonly Housing[] {
    const key = `${part === null ? '' : stopKey(part, stop)}|${poseKey(moved)}`;
    return remember(this.#housings, key, () => {
      const open = part === null || stop === null ? moved : [stop.id, ...moved];
      return (this.#riders.get(part) ?? []).map((p): Housing => {
        const solid = housingOf(this.#lookup, p, open);
        return { placementId: p.id, solid, obstacles: layOut([solid]), ...ballAround(solid.vertices) };
      });
    });
  }
}

/**
 * What a module sends through its lens toward the elevations of a bearing, written into a column; false where that is nothing.
 * @param rings - directions by elevation and bearing
 */
function sentBy(
  { placed, beam, separates }: PlacedBeam,
  lensTransmission: number,
  elevationsDeg: readonly number[],
  rings: readonly (readonly Vec3[])[],
): (bearing: number, column: Float64Array) => boolean {
  if (separates) {
    const across = ringDirections(0).map(beam);
    const aimDeg = bearingOf(placed.frame.aim).bearingDeg;
    const up = Float64Array.from(elevationsDeg, (deg) => beam(directionOf(aimDeg, deg)));
    return (bearing, column) => {
      const share = across[bearing] ?? 0;
      if (share === 0) return false;
      for (let row = 0; row < column.length; row++) column[row] = share * (up[row] ?? 0) * lensTransmission;
      return true;
    };
  }
  // Ring by ring, as directions lie in memory: column by column takes twice as long.
  const rows = elevationsDeg.length;
  const shares = new Float64Array(BEARINGS * rows);
  const sends = new Uint8Array(BEARINGS);
  for (const [row, ring] of rings.entries())
    for (let b = 0; b < BEARINGS; b++) {
      const direction = ring[b];
      const share = direction === undefined ? 0 : beam(direction);
      if (share === 0) continue;
      shares[b * rows + row] = share * lensTransmission;
      sends[b] = 1;
    }
  return (bearing, column) => {
    if (sends[bearing] === 0) return false;
    column.set(shares.subarray(bearing * rows, (bearing + 1) * rows));
    return true;
  };
}

/** Whether some direction of a ring may meet a housing; false only where none does. */
function meetsRing({ middle, radiusM }: Ball, from: Vec3, elevationDeg: number): boolean {
  const [x, y, z] = sub(middle, from);
  const away = Math.hypot(x, y, z);
  if (away <= radiusM) return true;
  const axisDeg = Math.asin(z / away) * DEG;
  return Math.abs(axisDeg - elevationDeg) <= Math.asin(radiusM / away) * DEG + SLACK_DEG;
}

/** The whole bearings at which a housing may be met, first and how many. */
function bearingsOf(
  { middle, radiusM }: Ball,
  from: Vec3,
): { readonly first: number; readonly count: number } {
  const [x, y] = sub(middle, from);
  const away = Math.hypot(x, y);
  if (away <= radiusM) return { first: 0, count: BEARINGS };
  const half = Math.asin(radiusM / away) * DEG + SLACK_DEG;
  const at = Math.atan2(-y, x) * DEG;
  const first = Math.ceil(at - half);
  return { first, count: Math.min(BEARINGS, Math.floor(at + half) - first + 1) };
}

/** Shares by bearing, less what housings hide; null where they hide nothing. */
function behind(
  share: Float64Array,
  housings: readonly Housing[],
  from: Vec3,
  elevationDeg: number,
): Float64Array | null {
  let left: Float64Array | null = null;
  const ring = ringDirections(elevationDeg);
  for (const housing of housings) {
    const past = occluderAt(housing.obstacles, from);
    const { first, count } = bearingsOf(housing, from);
    for (let i = 0; i < count; i++) {
      const b = (first + i + BEARINGS) % BEARINGS;
      const direction = ring[b];
      if ((left ?? share)[b] === 0 || direction === undefined || past(direction) === 1) continue;
      left ??= Float64Array.from(share);
      left[b] = 0;
    }
  }
  return left;
}

/** One of two shares, bearing by bearing. */
type Taken = (a: Float64Array, b: Float64Array) => Float64Array;

const larger: Taken = (a, b) => a.map((value, bearing) => Math.max(value, b[bearing] ?? 0));
const smaller: Taken = (a, b) => a.map((value, bearing) => Math.min(value, b[bearing] ?? 0));

/** The share that passes a part, over all of its stops; null where that is all. */
function passingOf(shades: Shades, part: MovingPart, of: Taken): Float64Array | null {
  const ofStops = stopsWithShut(part).map((stop) => shades.ofPart(part, stop));
  const hiding = ofStops.flatMap((share) => share ?? []);
  if (hiding.length === 0) return null;
  const all = new Float64Array(BEARINGS).fill(1);
  return (hiding.length < ofStops.length ? [all, ...hiding] : hiding).reduce(of);
}

/** Share by bearing after all that hides; the first itself where nothing does. */
function product(first: Float64Array, hiding: readonly Float64Array[]): Float64Array {
  if (hiding.length === 0) return first;
  const share = Float64Array.from(first);
  for (const factor of hiding)
    for (let b = 0; b < BEARINGS; b++) share[b] = (share[b] ?? 0) * (factor[b] ?? 0);
  return share;
}

const fieldsByLookup = new WeakMap<Lookup, WeakMap<readonly Placement[], LampFields>>();

/** The fields of a build's lamps; builds with the same vehicle and placements share them. */
export function fieldsOf(build: Build): LampFields {
  const lookup = lookupOf(build);
  const ofLookup = fieldsByLookup.get(lookup) ?? new WeakMap<readonly Placement[], LampFields>();
  fieldsByLookup.set(lookup, ofLookup);
  const known = ofLookup.get(build.placements) ?? new LampFields(lookup, build.placements);
  ofLookup.set(build.placements, known);
  return known;
}
