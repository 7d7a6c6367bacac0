import type { BodyType } from '../body/dimension.ts';
import { LARGE_SUV, MID_SUV, SEDAN } from './cars.ts';
import { PICKUP, PICKUP_CANOPY, PICKUP_SERVICE } from './pickups.ts';
import { PUMPER, RESCUE } from './heavyTrucks.ts';
import { BOX_AMBULANCE, BOX_TRUCK, BOX_TRUCK_DOORS, FLAT_BED, PANEL_VAN } from './lightTrucks.ts';

/** Every body type, small to large. */
export const BODY_TYPES: readonly BodyType[] = [
  SEDAN,
  MID_SUV,
  LARGE_SUV,
  PICKUP,
  PICKUP_CANOPY,
  PICKUP_SERVICE,
  PANEL_VAN,
  BOX_AMBULANCE,
  FLAT_BED,
  BOX_TRUCK,
  BOX_TRUCK_DOORS,
  PUMPER,
  RESCUE,
];

/** The body type of that id; undefined when Flarik knows none. */
export const findBodyType = (id: string): BodyType | undefined => BODY_TYPES.find((b) => b.id === id);
