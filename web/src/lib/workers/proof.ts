import * as Comlink from 'comlink';
import type { ProofApi } from './proof.worker';

/** Starts a worker for the proof; `end` ends it, whatever it does. */
export function startProof(): { api: Comlink.Remote<ProofApi>; end: () => void } {
  const worker = new Worker(new URL('./proof.worker.ts', import.meta.url), { type: 'module' });
  return { api: Comlink.wrap<ProofApi>(worker), end: () => worker.terminate() };
}
