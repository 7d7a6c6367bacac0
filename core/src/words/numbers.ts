import { z } from 'zod';

/** A number between two bounds, both allowed, that says so when it is not. */
export const numberBetween = (min: number, max: number) =>
  z
    .number({ error: 'must be a number' })
    .min(min, `must be at least ${min}`)
    .max(max, `must be at most ${max}`);

/** A number above 0. */
export const positive = z
  .number({ error: 'must be a number' })
  .positive('must be more than 0')
  .max(1e9, 'must be at most 1e9');

/** To a tenth of a millimetre or so; adding 0 makes −0 into 0, since a file does not keep the sign of nothing. */
export const tidy = (value: number): number => Math.round(value * 1e4) / 1e4 + 0;
