import { TOUCH_M } from '../../resolve/housing.ts';
import { convexOf, overlapDepthM } from '../../geometry/overlap.ts';
import { moveSolid } from '../../geometry/solid.ts';
import { motionOf } from '../../vehicle/vehicle.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing, mmUp, type LayoutSubject, type StandingLamp } from './subject.ts';
import { about } from '../subject.ts';

/** Lamps in a volume to be kept clear, with everything shut or with a part at a stop. */
export function keepOutFaults(subject: LayoutSubject): IssueDraft[] {
  const { vehicle } = subject.lookup;
  const known = new Set<string>();
  return subject.poses.flatMap((open) => {
    const parts = new Set(open);
    const moved = (partId: string | null): boolean => motionOf(vehicle, partId, parts) !== null;
    const [still, carried] = lampsOf(subject, open, moved);
    return vehicle.keepOuts.flatMap(({ id, name, kind, solid }) => {
      // A pose can only bring a lamp and a keep-out together by moving one of the two.
      const lamps = open.length === 0 || moved(solid.partId) ? still : carried;
      if (lamps.length === 0) return [];
      const there = convexOf(moveSolid(solid, motionOf(vehicle, solid.partId, parts)));
      return lamps.flatMap(({ p, housing }) => {
        const key = `${id}|${p.id}`;
        if (known.has(key)) return [];
        const depth = overlapDepthM(housing, there);
        if (depth <= TOUCH_M) return [];
        known.add(key);
        const where = kind === 'other' ? name : `${name} (${kind})`;
        return [
          {
            sentence: `${p.label}: ${mmUp(depth)} mm inside a keep-out: ${where}.`,
            figure: { value: depth * 1000, unit: 'mm' as const },
            limits: [{ value: TOUCH_M * 1000, unit: 'mm' as const, sense: 'at most' as const }],
            ...pointing([p], open),
            subjects: [about('lamp', p.id), about('keep-out', id)],
          },
        ];
      });
    });
  });
}

/** The lamps that stay where they are in a pose, and those that it carries along. */
function lampsOf(
  subject: LayoutSubject,
  open: readonly string[],
  moved: (partId: string | null) => boolean,
): readonly [readonly StandingLamp[], readonly StandingLamp[]] {
  const shut = subject.standing();
  const still = shut.filter(({ placed }) => !moved(placed.zone.partId));
  const carried = shut.filter(({ placed }) => moved(placed.zone.partId));
  return [still, carried.map(({ p }) => subject.stand(p, open))];
}
