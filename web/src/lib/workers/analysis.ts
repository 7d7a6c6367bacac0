import * as Comlink from 'comlink';
import type { AnalysisApi } from './analysis.worker';

/** Starts a worker for the sums; `stop` ends it. */
export function startAnalysis(): { api: Comlink.Remote<AnalysisApi>; stop: () => void } {
  const worker = new Worker(new URL('./analysis.worker.ts', import.meta.url), { type: 'module' });
  return { api: Comlink.wrap<AnalysisApi>(worker), stop: () => worker.terminate() };
}
