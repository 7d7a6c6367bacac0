import { z } from 'zod';
import { Colour } from '../words/colour.ts';
import { Id, Name } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';
import { AmbientLevel, Weather } from '../words/weather.ts';

/** Somebody who comes nearer on a road: from where, how fast, in what air, and what must be seen of the vehicle. */
export const Approach = z.strictObject({
  id: Id,
  name: Name,
  /** Where the eye comes from, clockwise from straight ahead of the vehicle, degrees. */
  bearingDeg: numberBetween(0, 359.9),
  speedKmh: numberBetween(5, 250),
  /** Height of the eye above the road, m. */
  eyeM: numberBetween(0.3, 4),
  /** Uphill for whoever comes is positive. */
  gradePercent: numberBetween(-15, 15),
  /** A crest between the two; null on an even road. */
  crest: z
    .strictObject({ lengthM: numberBetween(10, 2000), changePercent: numberBetween(0.1, 30) })
    .nullable(),
  weather: Weather,
  around: AmbientLevel,
  /** Of this colour alone; null sees the whole vehicle. */
  colour: Colour.nullable(),
  /** Of lamps whose optical centres lie above, or at and below, 1.5 m; or of all. */
  level: z.enum(['any', 'upper', 'lower'], { error: 'must be any, upper or lower' }),
  /** So many times the light that is just visible: 1 just visible, 20 noticed while driving. */
  noticing: numberBetween(1, 1000),
});
export type Approach = z.infer<typeof Approach>;
