import { activeFunctionNames } from '../../design/controls.ts';
import { channelOf } from '../../resolve/channels.ts';
import { NONE } from '../diagrams.ts';
import type { VerificationCheck } from '../found.ts';
import { NearestFound } from '../nearestFound.ts';
import { about } from '../../rules/subject.ts';

/** Lamps that show something else while a signal that they belong to is on. */
export const maskedSignal: VerificationCheck = {
  kind: 'masked-signal',
  severity: 'blocks',
  clause: 'Signals are never masked',
  find: (subject) => {
    const { build, diagrams: d, program } = subject;
    const found = new NearestFound(subject);
    for (const { cell, drives, module, when } of subject.everyCase()) {
      const other = drives.find((d) => subject.functionOf(d.on).kind !== 'signal');
      if (other === undefined) continue;
      for (const signal of cell.heeds) {
        if (subject.functionOf(signal).kind !== 'signal' || !subject.wants(signal, module)) continue;
        const both = d.and(when, program.onVariable(signal));
        if (both === NONE) continue;
        const subjects = [
          about('function', signal),
          about('lamp', module.placementId),
          about('function', other.on),
        ];
        found.note(subjects, both, cell.ambient, {
          sentence: `${subject.labelOf(module)} shows ${activeFunctionNames(build, [other.on])} instead of the signal while ${activeFunctionNames(build, [signal])} is on.`,
          channels: [channelOf(other)],
        });
      }
    }
    return found.all;
  },
};
