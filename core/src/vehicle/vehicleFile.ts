import { z } from 'zod';
import { InputError, parseInput, pathText } from '../words/errors.ts';
import { invalidPartReferences } from './looseParts.ts';
import { vehicleFromVersion1, vehicleFromVersion2 } from './migrate.ts';
import { VehicleSpec } from './spec.ts';

const VEHICLE_FORMAT = 'flarik-vehicle';

const VehicleFile = z.strictObject({
  format: z.literal(VEHICLE_FORMAT, {
    error: `this is not a Flarik vehicle: 'format' must be '${VEHICLE_FORMAT}'`,
  }),
  schemaVersion: z.literal(3, { error: 'must be 1, 2 or 3' }),
  vehicle: VehicleSpec,
});

/** A vehicle by itself as data for a file, to be used in other builds. */
export const writeVehicle = (vehicle: VehicleSpec): z.infer<typeof VehicleFile> => ({
  format: VEHICLE_FORMAT,
  schemaVersion: 3,
  vehicle,
});

/**
 * Reads a vehicle file's data.
 * @throws {InputError} what is wrong and where
 */
export function readVehicle(data: unknown): VehicleSpec {
  const { vehicle } = parseInput(VehicleFile, newest(data));
  const [loose] = invalidPartReferences(vehicle, ['vehicle']);
  if (loose !== undefined) throw new InputError(pathText(loose.path), loose.reason);
  return vehicle;
}

const Older = z.looseObject({ format: z.literal(VEHICLE_FORMAT), schemaVersion: z.literal([1, 2]) });

function newest(data: unknown): unknown {
  const older = Older.safeParse(data);
  if (!older.success) return data;
  const { schemaVersion, vehicle } = older.data;
  const second = schemaVersion === 1 ? vehicleFromVersion1(vehicle) : vehicle;
  return { ...older.data, schemaVersion: 3, vehicle: vehicleFromVersion2(second) };
}
