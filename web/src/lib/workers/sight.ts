import type { SightApi } from './sight.worker';
import { sparing } from './spare';

/** Starts a worker for what eyes, ground and air get of the light. */
export const startSight = sparing<SightApi>(
  () => new Worker(new URL('./sight.worker.ts', import.meta.url), { type: 'module' }),
);
