import { doubles, type LooseEnd } from '../words/looseEnd.ts';
import type { VehicleSpec } from './spec.ts';
import type { Vehicle } from './types.ts';
import { vehicleOf } from './vehicle.ts';

/** Every id of a vehicle that names nothing on it, or names something twice. */
export function* looseParts(spec: VehicleSpec, path: readonly PropertyKey[]): Generator<LooseEnd> {
  const vehicle = vehicleOf(spec);
  yield* doubles(vehicle.zones, [...path, 'zones']);
  for (const list of ['solids', 'keepOuts', 'reflectors'] as const)
    yield* doubles(spec[list], [...path, list]);
  for (const [i, { partId }] of spec.zones.entries())
    if (partId !== null && !hasPart(vehicle, partId))
      yield { path: [...path, 'zones', i, 'partId'], reason: `no moving part '${partId}' on this vehicle` };
}

/** A vehicle whose own zones on parts that it has not lie on the body instead. */
export function withoutLostParts(spec: VehicleSpec): VehicleSpec {
  const vehicle = vehicleOf(spec);
  const lost = spec.zones.filter(({ partId }) => partId !== null && !hasPart(vehicle, partId));
  if (lost.length === 0) return spec;
  return { ...spec, zones: spec.zones.map((z) => (lost.includes(z) ? { ...z, partId: null } : z)) };
}

const hasPart = (vehicle: Vehicle, partId: string): boolean => vehicle.parts.some(({ id }) => id === partId);
