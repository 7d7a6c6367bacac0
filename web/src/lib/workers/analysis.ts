import type { AnalysisApi } from './analysis.worker';
import { restartWhenIdle } from './spare';

/** Starts a worker for the sums. */
export const startAnalysis = restartWhenIdle<AnalysisApi>(
  () => new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module' }),
);
