import type { Ranges, Stations } from '../body/dimension.ts';
import type { Assembly } from '../types.ts';

/** Something fitted to a body that adds solids, zones and moving parts. */
export interface VehicleOption {
  readonly id: string;
  readonly name: string;
  readonly what: string;
  /** What is measured on it; nothing when not said. */
  readonly ranges?: Ranges;
  /** @param d - every dimension of its ranges */
  readonly workOut: (s: Stations, d: Readonly<Record<string, number>>) => Assembly;
}
