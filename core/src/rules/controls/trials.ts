import { programmeOf } from '../../controls/programme.ts';
import { runTrial } from '../../controls/trial.ts';
import { onText } from '../../design/controls.ts';
import type { Said } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** Trials that no longer end with the functions on that they were kept with. */
export const brokenTrials = ({ build }: LayoutSubject): Said[] =>
  build.controls.trials.flatMap((trial): Said[] => {
    const { missing, surplus } = runTrial(programmeOf(build), trial);
    if (missing.length + surplus.length === 0) return [];
    const parts = [
      ...(missing.length > 0 ? [`${onText(build, missing)} should be on and is not`] : []),
      ...(surplus.length > 0 ? [`${onText(build, surplus)} is also on`] : []),
    ];
    return [
      {
        subjects: [about('test', trial.id)],
        sentence: `test “${trial.name}” fails: ${parts.join('; ')}.`,
      },
    ];
  });
