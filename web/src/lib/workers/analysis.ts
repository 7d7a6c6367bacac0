import type { AnalysisApi } from './analysis.worker';
import { sparing } from './spare';

/** Starts a worker for the sums. */
export const startAnalysis = sparing<AnalysisApi>(
  () => new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module' }),
);
