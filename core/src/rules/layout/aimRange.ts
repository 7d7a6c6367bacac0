import { atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing, type LayoutSubject } from './subject.ts';
import { about } from '../subject.ts';

/** Lamps that are aimed on the spot, set further than they turn. */
export const aimRangeFaults = (subject: LayoutSubject): IssueDraft[] =>
  subject.standing().flatMap(({ p, placed: { fixture } }): IssueDraft[] => {
    const { panRangeDeg, tiltRangeDeg } = fixture;
    if (panRangeDeg === 0 && tiltRangeDeg === 0) return [];
    const ways = [p, ...p.aims].flatMap(({ panDeg, tiltDeg }) => [
      ['panned', panDeg, panRangeDeg] as const,
      ['tilted', tiltDeg, tiltRangeDeg] as const,
    ]);
    return ways.flatMap(([how, deg, most]): IssueDraft[] =>
      Math.abs(deg) <= most
        ? []
        : [
            {
              sentence: `${p.label}: ${how} ${Math.round(Math.abs(deg))}° (range ±${most}°).`,
              figure: { value: Math.abs(deg), unit: '°' },
              limits: [atMost(most, '°')],
              ...pointing([p]),
              subjects: [about('lamp', p.id), about('topic', how)],
            },
          ],
    );
  });
