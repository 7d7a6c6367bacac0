import { z } from 'zod';
import { Id, Name } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';

/** Another vehicle at the same scene, by its own build. */
export const SceneVehicle = z.strictObject({
  id: Id,
  buildId: z.uuid('must be a UUID'),
  /** As the build was called when it was brought in. */
  name: Name,
  /** Where its middle stands, from the middle of this vehicle, m. */
  aheadM: numberBetween(-200, 200),
  leftM: numberBetween(-200, 200),
  /** Turned to the left against this vehicle, degrees. */
  turnedDeg: numberBetween(-180, 180),
  /** The functions that are on there, by their ids; a cycle with its number, as "emergency:2". */
  on: z.array(z.string().max(80)).max(64),
  /** Sync groups there that keep step with groups here. */
  inStep: z.array(z.strictObject({ here: Id, there: Id })).max(32),
});
export type SceneVehicle = z.infer<typeof SceneVehicle>;

/** Where someone looks at a scene from, from the middle of this vehicle, m. */
export const ScenePoint = z.strictObject({
  aheadM: numberBetween(-500, 500),
  leftM: numberBetween(-500, 500),
  heightM: numberBetween(0.3, 10),
});
export type ScenePoint = z.infer<typeof ScenePoint>;
