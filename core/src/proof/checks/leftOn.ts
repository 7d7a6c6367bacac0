import { onText } from '../../design/controls.ts';
import type { Found, ProofCheck } from '../found.ts';

/** With the ignition off and all timers ended, what still lights or runs and is not marked that it may stay. */
export const leftOn: ProofCheck = {
  kind: 'left-on',
  severity: 'warns',
  clause: 'Nothing is left on with the key off',
  find: (subject) => {
    const found = new Map<string, Found>();
    for (const moment of subject.moments.all) {
      if (!subject.atEnd(moment)) continue;
      const lit = new Set(subject.driven(moment).map((d) => d.on));
      for (const on of moment.on) {
        const fn = subject.functionOf(on);
        const runs = lit.has(on) || subject.isLoading(on);
        if (fn.mayStay || !runs || found.has(fn.id)) continue;
        found.set(fn.id, {
          about: fn.id,
          sentence: `${onText(subject.build, [on])} stays on with the ignition off and is not marked that it may.`,
          moment,
        });
      }
    }
    return [...found.values()];
  },
};
