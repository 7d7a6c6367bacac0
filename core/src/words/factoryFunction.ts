import { z } from 'zod';

/** What a lamp that the vehicle's maker fitted is for. */
export const FACTORY_FUNCTIONS = [
  'head',
  'low beam',
  'high beam',
  'day',
  'parking',
  'turn',
  'tail',
  'stop',
  'reverse',
  'fog',
  'marker',
  'mirror turn',
  'plate',
  'cargo',
] as const;
export const FactoryFunction = z.enum(FACTORY_FUNCTIONS, {
  error: `must be one of ${FACTORY_FUNCTIONS.join(', ')}`,
});
export type FactoryFunction = z.infer<typeof FactoryFunction>;
