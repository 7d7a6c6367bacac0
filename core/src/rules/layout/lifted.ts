import type { IssueDraft } from '../judgement.ts';
import { bodyKeepOuts } from '../../vehicle/vehicle.ts';
import type { LayoutSubject } from './subject.ts';
import { about } from '../subject.ts';

/** Keep-outs of the body that the survey lifts, moves or cuts: whoever drills must know who said so. */
export function liftedFaults({ build }: LayoutSubject): IssueDraft[] {
  const { survey } = build.vehicle;
  return bodyKeepOuts(build.vehicle).flatMap(({ id, name, kind }): IssueDraft[] => {
    const found = survey.keepOuts[id];
    if (found === undefined) return [];
    const what = kind === 'other' ? name : `${name} (${kind})`;
    const how = found.box === null ? 'lifted' : 'moved or cut';
    return [
      {
        subjects: [about('keep-out', id)],
        sentence: `Keep-out ${what}, ${how} in the survey: ${found.reason.replace(/[.\s]+$/, '')}.`,
        figure: null,
        limits: [],
      },
    ];
  });
}
