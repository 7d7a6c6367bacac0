import { changePlacement } from '@flarik/core/arrange/lamps';
import type { RingOptions } from '@flarik/core/coverage/ring';
import type { Build } from '@flarik/core/design/schema';
import { demoBuild } from '@flarik/core/test/reference/demo';

/** KS-12, which most are measured on. */
export const build = demoBuild('ks-12');

/** What is looked at. */
export const options: RingOptions = { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 };

export function median(values: readonly number[]): number {
  return values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

export function timed<T>(work: () => T): { ms: number; result: T } {
  const start = performance.now();
  const result = work();
  return { ms: performance.now() - start, result };
}

/** The median of several runs, after two that warm up. */
export function medianMs(runs: number, work: (run: number) => unknown): number {
  work(-1);
  work(-2);
  return median(Array.from({ length: runs }, (_, run) => timed(() => work(run)).ms));
}

export const onceMs = (work: () => unknown): number => timed(work).ms;

/** By how much two lists differ at most, as a share where values are large. */
export const largest = (a: Float64Array, b: Float64Array): number =>
  a.reduce((worst, value, i) => Math.max(worst, Math.abs(value - (b[i] ?? 0)) / (1 + Math.abs(value))), 0);

/** The build with one head moved, so that nothing of it is known from before. */
export const nudged = (b: Build, run: number): Build =>
  changePlacement(b, 'grille', { uM: 0.3 + (run + 3) * 1e-4 });

/** The same vehicle but for a micrometre, so that its fields are not known. */
export function elsewhere(run: number): Build['vehicle'] {
  const { dimensions } = build.vehicle;
  return {
    ...build.vehicle,
    dimensions: { ...dimensions, lengthM: (dimensions.lengthM ?? 0) + (run + 3) * 1e-6 },
  };
}
