import type { Stations } from '../body/dimension.ts';
import type { Assembly } from '../types.ts';

/** Something fitted to a body that adds solids, zones and moving parts. */
export interface VehicleOption {
  readonly id: string;
  readonly name: string;
  readonly what: string;
  readonly workOut: (s: Stations) => Assembly;
}
