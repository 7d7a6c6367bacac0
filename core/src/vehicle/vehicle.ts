import { z } from 'zod';
import type { Motion } from '../geometry/frame.ts';
import { moveDirection, movePoint } from '../geometry/frame.ts';
import { moveSolid, type Solid } from '../geometry/solid.ts';
import { midSuvArt } from './midSuv/art/art.ts';
import { midSuvFactoryLamps } from './midSuv/factoryLamps.ts';
import { MidSuvDimensions, midSuvPoints } from './midSuv/points.ts';
import { midSuvParts, midSuvSolids } from './midSuv/solids.ts';
import { midSuvZones } from './midSuv/zones.ts';
import type { MountZone, Vehicle } from './types.ts';

/** The vehicle as a build stores it: a body type and what the tape measure said. */
export const VehicleSpec = z.strictObject({
  bodyType: z.literal('mid-suv', { error: "must be a body type Flarik knows: 'mid-suv'" }),
  dimensions: MidSuvDimensions,
});
export type VehicleSpec = z.infer<typeof VehicleSpec>;

/** Vehicles already worked out, by their spec as text: a spec that crossed into a worker is a new object. */
const worked = new Map<string, Vehicle>();
const MOST_KEPT = 16;

/** Works the vehicle out from its dimensions. Equal specs give the same vehicle object. */
export function vehicleOf(spec: VehicleSpec): Vehicle {
  const key = JSON.stringify(spec);
  const known = worked.get(key);
  if (known !== undefined) return known;
  const d = spec.dimensions;
  const p = midSuvPoints(d);
  const vehicle: Vehicle = {
    name: 'Mid SUV',
    lengthM: d.lengthM,
    widthM: d.widthM,
    heightM: d.heightM,
    solids: midSuvSolids(p),
    parts: midSuvParts(p),
    zones: midSuvZones(p),
    factoryLamps: midSuvFactoryLamps(p),
    art: midSuvArt(p),
  };
  if (worked.size >= MOST_KEPT) worked.clear();
  worked.set(key, vehicle);
  return vehicle;
}

/** The parts that stand open, by id. */
export type OpenParts = ReadonlySet<string>;

/** The motion of a part in this pose; null while shut, or for no part at all. */
export function motionOf(vehicle: Vehicle, partId: string | null, open: OpenParts): Motion | null {
  if (partId === null || !open.has(partId)) return null;
  return vehicle.parts.find((part) => part.id === partId)?.open ?? null;
}

/** All solids in their present positions. */
export const posedSolids = (vehicle: Vehicle, open: OpenParts): Solid[] =>
  vehicle.solids.map((s) => moveSolid(s, motionOf(vehicle, s.partId, open)));

/** A zone carried along by its moving part. */
export function posedZone(vehicle: Vehicle, zone: MountZone, open: OpenParts): MountZone {
  const m = motionOf(vehicle, zone.partId, open);
  if (m === null) return zone;
  return {
    ...zone,
    centre: movePoint(m, zone.centre),
    u: moveDirection(m, zone.u),
    v: moveDirection(m, zone.v),
    n: moveDirection(m, zone.n),
  };
}

/**
 * The zone of that id.
 * @throws {RangeError} the vehicle has none
 */
export function zoneOf(vehicle: Vehicle, zoneId: string): MountZone {
  const zone = vehicle.zones.find((candidate) => candidate.id === zoneId);
  if (zone === undefined) throw new RangeError(`no mount zone '${zoneId}' on this vehicle`);
  return zone;
}
