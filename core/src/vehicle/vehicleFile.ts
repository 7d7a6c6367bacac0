import { z } from 'zod';
import { parseInput } from '../words/errors.ts';
import { VehicleSpec } from './spec.ts';

const VEHICLE_FORMAT = 'flarik-vehicle';

const VehicleFile = z.strictObject({
  format: z.literal(VEHICLE_FORMAT, {
    error: `this is not a Flarik vehicle: 'format' must be '${VEHICLE_FORMAT}'`,
  }),
  schemaVersion: z.literal(1),
  vehicle: VehicleSpec,
});

/** A vehicle by itself as data for a file, to be used in other builds. */
export const writeVehicle = (vehicle: VehicleSpec): z.infer<typeof VehicleFile> => ({
  format: VEHICLE_FORMAT,
  schemaVersion: 1,
  vehicle,
});

/**
 * Reads a vehicle file's data.
 * @throws {InputError} what is wrong and where
 */
export const readVehicle = (data: unknown): VehicleSpec => parseInput(VehicleFile, data).vehicle;
