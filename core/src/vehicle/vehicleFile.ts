import { z } from 'zod';
import { InputError, parseInput, pathText } from '../words/errors.ts';
import { looseParts } from './looseParts.ts';
import { vehicleFromVersion1 } from './migrate.ts';
import { VehicleSpec } from './spec.ts';

const VEHICLE_FORMAT = 'flarik-vehicle';

const VehicleFile = z.strictObject({
  format: z.literal(VEHICLE_FORMAT, {
    error: `this is not a Flarik vehicle: 'format' must be '${VEHICLE_FORMAT}'`,
  }),
  schemaVersion: z.literal(2, { error: 'must be 1 or 2' }),
  vehicle: VehicleSpec,
});

/** A vehicle by itself as data for a file, to be used in other builds. */
export const writeVehicle = (vehicle: VehicleSpec): z.infer<typeof VehicleFile> => ({
  format: VEHICLE_FORMAT,
  schemaVersion: 2,
  vehicle,
});

/**
 * Reads a vehicle file's data.
 * @throws {InputError} what is wrong and where
 */
export function readVehicle(data: unknown): VehicleSpec {
  const first = FirstVersion.safeParse(data);
  const now = first.success
    ? { ...first.data, schemaVersion: 2, vehicle: vehicleFromVersion1(first.data.vehicle) }
    : data;
  const { vehicle } = parseInput(VehicleFile, now);
  const [loose] = looseParts(vehicle, ['vehicle']);
  if (loose !== undefined) throw new InputError(pathText(loose.path), loose.reason);
  return vehicle;
}

const FirstVersion = z.looseObject({ format: z.literal(VEHICLE_FORMAT), schemaVersion: z.literal(1) });
