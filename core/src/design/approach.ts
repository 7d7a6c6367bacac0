import { z } from 'zod';
import { Colour } from '../words/colour.ts';
import { Id, Name } from '../words/names.ts';
import { within } from '../words/numbers.ts';
import { LightAround, Weather } from '../words/weather.ts';

/** Somebody who comes nearer on a road: from where, how fast, in what air, and what must be seen of the vehicle. */
export const Approach = z.strictObject({
  id: Id,
  name: Name,
  /** Where the eye comes from, clockwise from straight ahead of the vehicle, degrees. */
  bearingDeg: within(0, 359.9),
  speedKmh: within(5, 250),
  /** Height of the eye above the road, m. */
  eyeM: within(0.3, 4),
  /** Uphill for whoever comes is positive. */
  gradePercent: within(-15, 15),
  /** A crest between the two; null on an even road. */
  crest: z.strictObject({ lengthM: within(10, 2000), changePercent: within(0.1, 30) }).nullable(),
  weather: Weather,
  around: LightAround,
  /** Of this colour alone; null sees the whole vehicle. */
  colour: Colour.nullable(),
  /** Of lamps whose optical centres lie above, or at and below, 1.5 m; or of all. */
  level: z.enum(['any', 'upper', 'lower'], { error: 'must be any, upper or lower' }),
  /** So many times the light that is just visible: 1 just visible, 20 noticed while driving. */
  noticing: within(1, 1000),
});
export type Approach = z.infer<typeof Approach>;
