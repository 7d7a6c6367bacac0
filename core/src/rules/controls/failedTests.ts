import { compileProgram } from '../../controls/program.ts';
import { runTest } from '../../controls/controlTest.ts';
import { activeFunctionNames } from '../../design/controls.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { about } from '../subject.ts';

/** Trials that no longer end with the functions on that they were kept with. */
export const failedTests = ({ build }: LayoutSubject): IssueDraft[] =>
  build.controls.trials.flatMap((trial): IssueDraft[] => {
    const { missing, surplus } = runTest(compileProgram(build), trial);
    if (missing.length + surplus.length === 0) return [];
    const parts = [
      ...(missing.length > 0 ? [`${activeFunctionNames(build, missing)} should be on and is not`] : []),
      ...(surplus.length > 0 ? [`${activeFunctionNames(build, surplus)} is also on`] : []),
    ];
    return [
      {
        subjects: [about('test', trial.id)],
        sentence: `test “${trial.name}” fails: ${parts.join('; ')}.`,
      },
    ];
  });
