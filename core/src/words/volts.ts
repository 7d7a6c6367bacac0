import { z } from 'zod';

/** The voltage a vehicle, or a fixture, is made for. */
export const Volts = z.union([z.literal(12), z.literal(24)], { error: 'must be 12 or 24' });
export type Volts = z.infer<typeof Volts>;

/** The voltage at which the currents of fixtures are stated, V. */
export const STATED_AT_V = 12.8;
