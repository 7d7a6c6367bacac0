import { TOUCH_M } from '../../resolve/housing.ts';
import { length, sub } from '../../geometry/vec.ts';
import { overlapDepthM } from '../../geometry/overlap.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing, mmUp, type LayoutSubject } from './subject.ts';

/** Lamps that stand in each other, whatever zones they are on. */
export function overlapFaults(subject: LayoutSubject): IssueDraft[] {
  const boxes = subject.standing().map((s) => ({
    ...s,
    radiusM: Math.max(...s.housing.corners.map((corner) => length(sub(corner, s.placed.base)))),
  }));
  return boxes.flatMap((a, i) =>
    boxes.slice(i + 1).flatMap((b) => {
      const farApart = length(sub(a.placed.base, b.placed.base)) > a.radiusM + b.radiusM;
      const depth = farApart ? 0 : overlapDepthM(a.housing, b.housing);
      if (depth <= TOUCH_M) return [];
      return [
        {
          sentence: `${a.p.label} and ${b.p.label} overlap by ${mmUp(depth)} mm.`,
          figure: { value: depth * 1000, unit: 'mm' as const },
          limits: [{ value: TOUCH_M * 1000, unit: 'mm' as const, sense: 'at most' as const }],
          ...pointing([a.p, b.p]),
        },
      ];
    }),
  );
}
