import { duplicateIds, type DanglingReference } from '../words/danglingReference.ts';
import type { VehicleSpec } from './spec.ts';
import type { Vehicle } from './types.ts';
import { vehicleOf } from './vehicle.ts';

/** Every id of a vehicle that names nothing on it, or names something twice. */
export function* invalidPartReferences(
  spec: VehicleSpec,
  path: readonly PropertyKey[],
): Generator<DanglingReference> {
  const vehicle = vehicleOf(spec);
  yield* duplicateIds(vehicle.zones, [...path, 'zones']);
  for (const list of ['solids', 'keepOuts', 'reflectors', 'equipment'] as const)
    yield* duplicateIds(spec[list], [...path, list]);
  const lamps = vehicle.factoryLamps.map(({ id }) => id);
  for (const [i, { partId }] of spec.zones.entries())
    if (partId !== null && !hasPart(vehicle, partId))
      yield { path: [...path, 'zones', i, 'partId'], reason: `no moving part '${partId}' on this vehicle` };
  for (const [i, { id, partId }] of spec.survey.addedLamps.entries()) {
    if (partId !== null && !hasPart(vehicle, partId))
      yield {
        path: [...path, 'survey', 'addedLamps', i, 'partId'],
        reason: `no moving part '${partId}' on this vehicle`,
      };
    if (lamps.indexOf(id) !== lamps.lastIndexOf(id))
      yield { path: [...path, 'survey', 'addedLamps', i, 'id'], reason: `'${id}' is a lamp already` };
  }
}

/** A vehicle whose own zones, and lamps found, on parts that it has not lie on the body instead. */
export function dropMissingParts(spec: VehicleSpec): VehicleSpec {
  const vehicle = vehicleOf(spec);
  const isLost = ({ partId }: { readonly partId: string | null }): boolean =>
    partId !== null && !hasPart(vehicle, partId);
  const { addedLamps } = spec.survey;
  if (![...spec.zones, ...addedLamps].some(isLost)) return spec;
  const kept = <T extends { readonly partId: string | null }>(one: T): T =>
    isLost(one) ? { ...one, partId: null } : one;
  return {
    ...spec,
    zones: spec.zones.map(kept),
    survey: { ...spec.survey, addedLamps: addedLamps.map(kept) },
  };
}

const hasPart = (vehicle: Vehicle, partId: string): boolean => vehicle.parts.some(({ id }) => id === partId);
