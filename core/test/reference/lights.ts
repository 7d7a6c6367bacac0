import fc from 'fast-check';
import type { Signal } from '../../src/timing/signal.ts';

/** Pieces of any light: how long, from which level, and to which where it is a ramp. Any light with steps and ramps. */
export const pieces = fc.array(
  fc.tuple(
    fc.integer({ min: 1, max: 60 }),
    fc.integer({ min: 0, max: 900 }),
    fc.option(fc.integer({ min: 0, max: 900 })),
  ),
  { minLength: 1, maxLength: 6 },
);
export const waveOf = (parts: readonly (readonly [number, number, number | null])[]): Signal => ({
  cycleMs: parts.reduce((sum, [ms]) => sum + ms, 0),
  durationsMs: parts.map(([ms]) => ms),
  start: parts.map(([, cd]) => cd),
  end: parts.map(([, cd, to]) => to ?? cd),
});
/** Any light of steps alone. */
export const steps = (mostMs: number, levels: readonly number[]) =>
  fc
    .array(fc.tuple(fc.integer({ min: 1, max: mostMs }), fc.constantFrom(...levels)), {
      minLength: 2,
      maxLength: 4,
    })
    .map((parts) => waveOf(parts.map(([ms, cd]) => [ms, cd, null] as const)));
