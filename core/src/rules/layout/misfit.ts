import { misfit } from '../../resolve/place.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing, type LayoutSubject } from './subject.ts';

/** Lamps on a zone they are not made for, or too large for it as they are turned. */
export const misfitFaults = (subject: LayoutSubject): IssueDraft[] =>
  subject.standing().flatMap(({ p, placed: { zone, fixture } }): IssueDraft[] => {
    const why = misfit(fixture, zone, p.rollDeg);
    return why === null
      ? []
      : [{ sentence: `${p.label} does not fit ${zone.name}: ${why}.`, ...pointing([p]) }];
  });
