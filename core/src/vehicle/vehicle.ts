import { movePoint, moveDirection, type Motion } from '../geometry/frame.ts';
import { Mesh } from '../geometry/mesh.ts';
import { moveSolid, type Solid } from '../geometry/solid.ts';
import { recent } from '../words/recent.ts';
import { findBodyType } from './bodies/bodyTypes.ts';
import { assemble } from './body/assembly.ts';
import { fittedLamps } from './body/lamps.ts';
import { usualZones } from './body/usualZones.ts';
import { marksOf, measuredOf } from './body/dimension.ts';
import { findOption, rangesOf } from './options/options.ts';
import { ownParts } from './own.ts';
import type { VehicleSpec } from './spec.ts';
import { surveyed } from './survey.ts';
import type { KeepOut, MountZone, MovingPart, PartKind, PartPosition, Vehicle } from './types.ts';

const known = new WeakMap<VehicleSpec, Vehicle>();

/**
 * Works the vehicle out from its spec, once for each.
 * @throws {RangeError} the body type is not known
 */
export function vehicleOf(spec: VehicleSpec): Vehicle {
  const vehicle = known.get(spec) ?? (spec.mesh === null ? workOutRecent(spec) : workOut(spec));
  known.set(spec, vehicle);
  return vehicle;
}

/** A vehicle read again from the same text is the same vehicle. Not for meshes: their text is long. */
const workOutRecent = recent(64, (spec: VehicleSpec) => JSON.stringify(spec), workOut);

function workOut(spec: VehicleSpec): Vehicle {
  const body = findBodyType(spec.bodyType);
  if (body === undefined) throw new RangeError(`no body type '${spec.bodyType}'`);
  const worked = body.workOut(spec.dimensions);
  const { stations } = worked;
  const measured = measuredOf(rangesOf(body, spec.options));
  const options = spec.options.flatMap((id) => findOption(id)?.workOut(stations, spec.dimensions) ?? []);
  const lit = {
    ...worked,
    factoryLamps: fittedLamps(stations, worked.factoryLamps),
    zones: [...worked.zones, ...usualZones(stations, worked)],
  };
  const whole = surveyed(assemble(lit, ...options), ownParts(spec), spec.survey);
  return {
    ...whole,
    name: spec.name === '' ? body.name : spec.name,
    lengthM: 2 * stations.noseX,
    widthM: 2 * stations.outerY,
    heightM: stations.topZ,
    marks: marksOf(stations, measured, spec.dimensions),
    mesh: spec.mesh === null ? null : new Mesh(spec.mesh.verticesM, spec.mesh.triangles),
    meshReplacesBody: spec.mesh?.replacesBody === true,
  };
}

/** The keep-outs of a body and its options, as nobody surveyed them. */
export function bodyKeepOuts(spec: VehicleSpec): readonly KeepOut[] {
  const own = new Set([...spec.keepOuts, ...spec.equipment].map(({ id }) => id));
  const unsurveyed = { ...spec, mesh: null, survey: { ...spec.survey, keepOuts: {} } };
  return vehicleOf(unsurveyed).keepOuts.filter(({ id }) => !own.has(id));
}

/** The stops that parts stand at, by id; a part with none named is shut. */
export type OpenParts = ReadonlySet<string>;

/** Where a part stands; null when shut. */
export const stopOf = (part: MovingPart, open: OpenParts): PartPosition | null =>
  part.stops.find((stop) => open.has(stop.id)) ?? null;

/** Everywhere a part can stand: shut, as null, and its stops. */
export const stopsWithShut = (part: MovingPart): readonly (PartPosition | null)[] => [null, ...part.stops];

/** The motion of a part in this pose; null while shut, or for no part at all. */
export function motionOf(vehicle: Vehicle, partId: string | null, open: OpenParts): Motion | null {
  if (partId === null || open.size === 0) return null;
  const part = vehicle.parts.find((candidate) => candidate.id === partId);
  return part === undefined ? null : (stopOf(part, open)?.motion ?? null);
}

/** Whether a part stands anywhere but shut. */
export const isOpen = (vehicle: Vehicle, partId: string | null, open: OpenParts): boolean =>
  motionOf(vehicle, partId, open) !== null;

/** Every stop of the parts of some kinds; of all parts when none is named. */
export const stopsOf = (vehicle: Vehicle, ...kinds: readonly PartKind[]): PartPosition[] =>
  vehicle.parts.filter((p) => kinds.length === 0 || kinds.includes(p.kind)).flatMap((p) => p.stops);

/** The pose after a part has gone to its next stop, and from the last back to shut. */
export function nextPose(vehicle: Vehicle, open: readonly string[], partId: string): string[] {
  const part = vehicle.parts.find((candidate) => candidate.id === partId);
  if (part === undefined) return [...open];
  const at = part.stops.findIndex((stop) => open.includes(stop.id));
  const others = open.filter((id) => !part.stops.some((stop) => stop.id === id));
  const next = part.stops[at + 1];
  return next === undefined ? others : [...others, next.id];
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
