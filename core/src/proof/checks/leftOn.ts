import { onText, readOn, type On } from '../../design/controls.ts';
import type { Moment } from '../momentTable.ts';
import type { ProofCheck } from '../found.ts';

/** With the ignition off and all timers ended, what still lights or runs and is not marked that it may stay: said once. */
export const leftOn: ProofCheck = {
  kind: 'left-on',
  severity: 'warns',
  clause: 'Nothing is left on with the key off',
  find: (subject) => {
    const left = new Map<string, On>();
    let first: Moment | null = null;
    for (const at of subject.moments.where(subject.atEnd)) {
      const moment = subject.moments.at(at);
      const lit = new Set(
        subject.ambientsOf(moment).flatMap((ambient) => subject.driven(moment, ambient).map((d) => d.on)),
      );
      for (const on of moment.on) {
        const fn = subject.functionOf(on);
        if (fn.mayStay || left.has(fn.id) || !(lit.has(on) || subject.isLoading(on))) continue;
        left.set(fn.id, on);
        first ??= moment;
      }
    }
    if (first === null) return [];
    const who = onText(subject.build, [...left.values()]);
    return [
      {
        about: [...left.values()].map((on) => readOn(on).id).join('+'),
        sentence: `${who} ${left.size === 1 ? 'stays' : 'stay'} on with the ignition off and ${left.size === 1 ? 'is' : 'are'} not marked that ${left.size === 1 ? 'it' : 'they'} may.`,
        moment: first,
      },
    ];
  },
};
