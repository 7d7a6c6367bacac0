import { TOUCH_M } from '../../resolve/housing.ts';
import { dot, sub, type Vec3 } from '../../geometry/vec.ts';
import { footCorners } from '../../resolve/place.ts';
import { atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { mmUp, pointing, type LayoutSubject } from './subject.ts';

/**
 * Lamps whose mounting face reaches over the edge of their zone as it stands there, rolled as it is: after a roll, a
 * change of measures, or in a file. A head that is panned or tilted swings on its foot, which stays.
 */
export function offZoneFaults(subject: LayoutSubject): IssueDraft[] {
  return subject.standing().flatMap(({ p, placed }): IssueDraft[] => {
    const { zone, fixture } = placed;
    // What does not fit at all is said once, by that.
    if (!fixture.mounts.includes(zone.mount)) return [];
    const over = Math.max(
      ...footCorners(subject.lookup, p).map((corner: Vec3) => {
        const from = sub(corner, zone.centre);
        return Math.max(
          Math.abs(dot(from, zone.u)) - zone.widthM / 2,
          Math.abs(dot(from, zone.v)) - zone.heightM / 2,
        );
      }),
    );
    if (over <= TOUCH_M) return [];
    return [
      {
        sentence: `${p.label}: ${mmUp(over)} mm beyond the edge of ${zone.name}.`,
        figure: { value: over * 1000, unit: 'mm' },
        limits: [atMost(TOUCH_M * 1000, 'mm')],
        ...pointing([p]),
      },
    ];
  });
}
