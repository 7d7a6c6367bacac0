import { onsOf, activeFunctionNames } from '../../design/controls.ts';
import { NONE } from '../diagrams.ts';
import type { VerificationCheck } from '../found.ts';
import { about } from '../../rules/subject.ts';

/** Functions, and numbers of cycles, that no way of operating ever brings on. */
export const neverOn: VerificationCheck = {
  kind: 'never-on',
  severity: 'warns',
  clause: 'Every function can be on',
  alone: true,
  find: (subject) =>
    subject.functions.flatMap((fn) => {
      const { program, states, within } = subject.reached.of([fn.id]);
      const never = onsOf(fn).filter((on) => program.diagrams.and(states, program.isOn(on)) === NONE);
      // Of a cycle that is never on, once is enough.
      return (never.length === fn.shows.length ? never.slice(0, 1) : never).map((on) => {
        const name = activeFunctionNames(subject.build, [on]);
        return within === null
          ? { subjects: [about('function', on)], sentence: `${name} is never on in any reachable state.` }
          : {
              subjects: [about('function', on)],
              sentence: `${name} is not on within ${within} events. Longer sequences were not checked.`,
              outcome: 'cannot tell' as const,
            };
      });
    }),
};
