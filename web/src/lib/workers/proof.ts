import type { ProofApi } from './proof.worker';
import { sparing } from './spare';

/** Starts a worker for the proof. */
export const startProof = sparing<ProofApi>(
  () => new Worker(new URL('./proof.worker.ts', import.meta.url), { type: 'module' }),
);
