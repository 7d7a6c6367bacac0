import * as Comlink from 'comlink';
import type { SightApi } from './sight.worker';

/** Starts a worker for what eyes, ground and air get of the light; `end` ends it, whatever it does. */
export function startSight(): { api: Comlink.Remote<SightApi>; end: () => void } {
  const worker = new Worker(new URL('./sight.worker.ts', import.meta.url), { type: 'module' });
  return { api: Comlink.wrap<SightApi>(worker), end: () => worker.terminate() };
}
