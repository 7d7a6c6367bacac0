import type { VerificationApi } from './verification.worker';
import { restartWhenIdle } from './spare';

/** Starts a worker for the proof. */
export const startVerification = restartWhenIdle<VerificationApi>(
  () => new Worker(new URL('./verification.worker.ts', import.meta.url), { type: 'module' }),
);
