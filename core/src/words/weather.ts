import { z } from 'zod';

/** What the air is like for an eye on the road. */
export const WEATHERS = ['clear', 'rain', 'haze', 'fog'] as const;
export const Weather = z.enum(WEATHERS, { error: `must be one of ${WEATHERS.join(', ')}` });
export type Weather = z.infer<typeof Weather>;

/** Light around, as an eye on the road meets it. */
export const LIGHTS_AROUND = ['day', 'dusk', 'night'] as const;
export const AmbientLevel = z.enum(LIGHTS_AROUND, { error: `must be one of ${LIGHTS_AROUND.join(', ')}` });
export type AmbientLevel = z.infer<typeof AmbientLevel>;
