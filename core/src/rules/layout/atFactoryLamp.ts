import type { Placement } from '../../design/placement.ts';
import type { FactoryLamp } from '../../vehicle/types.ts';
import type { LayoutSubject } from './subject.ts';

/** A factory lamp is touched by a lamp put into it or before it, m. */
const BEFORE_M = 0.02;

/** The lamps that are put into a factory lamp or before it, by their boxes along the vehicle's axes. */
export function lampsAt(subject: LayoutSubject, { outline }: Pick<FactoryLamp, 'outline'>): Placement[] {
  const bounds = [0, 1, 2].map((axis) => {
    const values = outline.map((corner) => corner[axis] ?? 0);
    return [Math.min(...values) - BEFORE_M, Math.max(...values) + BEFORE_M] as const;
  });
  return subject.standing().flatMap(({ p, housing }) => {
    const meets = bounds.every(([low, high], axis) => {
      const values = housing.corners.map((corner) => corner[axis] ?? 0);
      return Math.max(...values) > low && Math.min(...values) < high;
    });
    return meets ? [p] : [];
  });
}
