import { z } from 'zod';

/** The light around a vehicle, as states and rules name it; the brighter first. */
export const AMBIENTS = ['day', 'night'] as const;
export const Ambient = z.enum(AMBIENTS, { error: `must be one of ${AMBIENTS.join(', ')}` });
export type Ambient = z.infer<typeof Ambient>;
