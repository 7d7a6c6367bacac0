import { TOUCH_M } from '../../resolve/housing.ts';
import { atLeast, atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { mmDown, mmUp, pointing, type LayoutSubject } from './subject.ts';
import { about } from '../subject.ts';

/** Lamps that need more depth behind their zone than is free, or stand out of it further than they may. */
export const roomFaults = (subject: LayoutSubject): IssueDraft[] =>
  subject.standing().flatMap(({ p, placed: { zone, fixture } }): IssueDraft[] => {
    const outM = fixture.sizeM.depth + p.poleM;
    return [
      ...(zone.behindM !== null && fixture.behindM > zone.behindM
        ? [
            {
              sentence: `${p.label}: needs ${mmUp(fixture.behindM)} mm behind ${zone.name} (available ${mmDown(zone.behindM)} mm).`,
              figure: { value: zone.behindM * 1000, unit: 'mm' as const },
              limits: [atLeast(fixture.behindM * 1000, 'mm')],
              ...pointing([p]),
              subjects: [about('lamp', p.id), about('topic', 'behind')],
            },
          ]
        : []),
      ...(zone.outM !== null && outM > zone.outM + TOUCH_M
        ? [
            {
              sentence: `${p.label}: projects ${mmUp(outM)} mm from ${zone.name} (limit ${mmDown(zone.outM)} mm).`,
              figure: { value: outM * 1000, unit: 'mm' as const },
              limits: [atMost(zone.outM * 1000, 'mm')],
              ...pointing([p]),
              subjects: [about('lamp', p.id), about('topic', 'in front')],
            },
          ]
        : []),
    ];
  });
