import type { SightApi } from './sight.worker';
import { restartWhenIdle } from './spare';

/** Starts a worker for what eyes, ground and air get of the light. */
export const startSight = restartWhenIdle<SightApi>(
  () => new Worker(new URL('./sight.worker.ts', import.meta.url), { type: 'module' }),
);
