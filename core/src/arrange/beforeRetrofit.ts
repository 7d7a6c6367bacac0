import type { Build } from '../design/schema.ts';
import { removePlacements } from './lamps.ts';

/** Whether something was on the vehicle before the work, so that before and after differ. */
export const isRetrofit = ({ placements }: Build): boolean =>
  placements.some(({ status }) => status === 'kept' || status === 'removed');

/**
 * The vehicle as it was before the work: with the lamps that are kept and those that are taken off, without any that are new,
 * planned, or come from another vehicle. They are switched as the programme now has it.
 */
export function beforeRetrofit(build: Build): Build {
  const later = build.placements.filter(({ status }) => status !== 'kept' && status !== 'removed');
  const before = removePlacements(build, new Set(later.map(({ id }) => id)));
  return {
    ...before,
    placements: before.placements.map((p) => (p.status === 'removed' ? { ...p, status: 'kept' } : p)),
  };
}
