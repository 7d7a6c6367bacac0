import { fixingOf, holesOf } from '../../resolve/place.ts';
import { countText } from '../fields.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing, type LayoutSubject } from './subject.ts';

/** Lamps drilled onto a panel of one skin, or onto what bears no holes. */
export function holeFaults(subject: LayoutSubject): IssueDraft[] {
  return subject.standing().flatMap(({ p, placed: { zone, fixture } }): IssueDraft[] => {
    const holes = holesOf(fixture, zone, p);
    if (holes === 0 || (!zone.singleWall && zone.fixings.includes('drill'))) return [];
    const why = zone.singleWall ? 'a single-skin panel' : 'where drilling is not permitted';
    const others = zone.fixings.filter((f) => f !== 'drill');
    const instead = others.length > 0 ? `Use ${others.join(' or ')}` : 'Choose another zone';
    return [
      {
        sentence: `${p.label}: ${countText(holes, 'hole')} in ${zone.name}, ${why}. ${instead}.`,
        figure: { value: holes, unit: 'holes' },
        limits: [{ value: 0, unit: 'holes', sense: 'at most' }],
        ...pointing([p]),
      },
    ];
  });
}

/** Lamps held in a way their zone does not bear. */
export function fixingFaults(subject: LayoutSubject): IssueDraft[] {
  return subject.standing().flatMap(({ p, placed: { zone } }): IssueDraft[] => {
    const fixing = fixingOf(zone, p);
    if (fixing === 'drill' || zone.fixings.includes(fixing)) return [];
    return [
      {
        sentence: `${p.label}: mounting by ${fixing} is not permitted on ${zone.name}. Use ${zone.fixings.join(' or ')}.`,
        figure: null,
        limits: [],
        ...pointing([p]),
      },
    ];
  });
}
