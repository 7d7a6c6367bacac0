import { namedOns, effectsOf } from '../../design/controls.ts';
import { AMBIENTS } from '../../words/ambient.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import { about } from '../../rules/subject.ts';

/** Functions that are on in some states and in all of them have every lamp they want taken by others. */
export const neverShown: VerificationCheck = {
  kind: 'never-shown',
  severity: 'warns',
  clause: 'Every lighting function is effective',
  find: (subject) => {
    const { build, diagrams: d, program, showing, whole } = subject;
    const shown = new Set([...subject.everyCase()].flatMap(({ drives }) => drives.map((one) => one.on)));
    return namedOns(build).flatMap(({ on, name }): VerificationFinding[] => {
      if (shown.has(on) || !effectsOf(build, on).cues.some((cue) => cue.show === 'light')) return [];
      const wants = AMBIENTS.some((ambient) =>
        showing.wants(on, ambient).some((want) => (want?.claims.length ?? 0) > 0),
      );
      const where = wants ? subject.nearest(d.and(whole.states, program.isOn(on))) : null;
      if (where === null) return [];
      const sentence = `${name} never lights a lamp: functions with higher priority override it in every state.`;
      return [
        {
          subjects: [about('function', on)],
          sentence,
          where,
          ...(whole.within === null ? {} : { outcome: 'cannot tell' }),
        },
      ];
    });
  },
};
