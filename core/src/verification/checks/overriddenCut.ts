import { activeFunctionNames } from '../../design/controls.ts';
import { channelOf } from '../../resolve/channels.ts';
import { NONE } from '../diagrams.ts';
import type { VerificationCheck } from '../found.ts';
import { NearestFound } from '../nearestFound.ts';
import { about } from '../../rules/subject.ts';

/** What takes light away, and in some state does not: a stronger function that is no signal still shows it. */
export const overriddenCut: VerificationCheck = {
  kind: 'beaten-cut',
  severity: 'warns',
  clause: 'Cut-outs are effective',
  find: (subject) => {
    const { build, diagrams: d, program } = subject;
    const found = new NearestFound(subject);
    for (const { cell, drives, module, when } of subject.everyCase())
      for (const cut of cell.heeds) {
        if (subject.functionOf(cut).kind !== 'cut') continue;
        const want = subject.wantOf(cut, module);
        if (want === null || want.claims.length > 0) continue;
        const both = d.and(when, program.onVariable(cut));
        if (both === NONE) continue;
        for (const drive of drives) {
          if (!want.takes && !want.forbids.includes(drive.colour)) continue;
          if (subject.functionOf(drive.on).kind === 'signal') continue;
          found.note([about('function', cut), about('function', drive.on)], both, cell.ambient, {
            sentence: `${activeFunctionNames(build, [drive.on])} overrides ${activeFunctionNames(build, [cut])} and still shows ${drive.colour}.`,
            channels: [channelOf(drive)],
          });
        }
      }
    return found.all;
  },
};
