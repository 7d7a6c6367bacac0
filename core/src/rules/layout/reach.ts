import type { IssueDraft } from '../judgement.ts';
import { pointing, type LayoutSubject } from './subject.ts';

/** Lamps that cannot be serviced without taking the vehicle apart: what was there already is left in peace. */
export function reachFaults(subject: LayoutSubject): IssueDraft[] {
  return subject.standing().flatMap(({ p, placed: { zone } }): IssueDraft[] => {
    if (zone.reach === 'free' || p.status === 'kept') return [];
    const how = zone.reach === 'none' ? 'is not accessible for service' : 'is accessible only behind trim';
    return [
      {
        sentence: `${p.label} ${how}: ${zone.behind}.`,
        figure: null,
        limits: [],
        ...pointing([p]),
      },
    ];
  });
}
