import { dot, sub } from '../../geometry/vec.ts';
import type { Fault } from '../finding.ts';
import { evidenceOf, mmUp, TOUCH_M, type LayoutSubject } from './subject.ts';

/** Lamps whose housing reaches over the edge of their zone, as after a roll or a change of measures. */
export function offZoneFaults(subject: LayoutSubject): Fault[] {
  return subject.standing().flatMap(({ p, placed, housing }) => {
    const { zone } = placed;
    const over = Math.max(
      ...housing.corners.flatMap((corner) => {
        const from = sub(corner, zone.centre);
        return [
          Math.abs(dot(from, zone.u)) - zone.widthM / 2,
          Math.abs(dot(from, zone.v)) - zone.heightM / 2,
        ];
      }),
    );
    // Turning a head aside swings its corners a little past the edge without moving its foot.
    if (p.panDeg !== 0 || p.tiltDeg !== 0 || over <= TOUCH_M) return [];
    return [
      {
        sentence: `"${p.label}" reaches ${mmUp(over)} mm over the edge of its zone, ${zone.name}.`,
        figure: { value: over * 1000, unit: 'mm' as const },
        limits: [{ value: TOUCH_M * 1000, unit: 'mm' as const, sense: 'at most' as const }],
        evidence: evidenceOf([p]),
      },
    ];
  });
}
