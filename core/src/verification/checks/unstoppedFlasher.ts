import { activeFunctionNames } from '../../design/controls.ts';
import { NONE } from '../diagrams.ts';
import type { VerificationCheck } from '../found.ts';
import { NearestFound } from '../nearestFound.ts';
import { about } from '../../rules/subject.ts';

/** Tied-in lamps of the maker whose flasher does not stop for a signal of theirs that can be on with it. */
export const unstoppedFlasher: VerificationCheck = {
  kind: 'unstopped-flasher',
  severity: 'blocks',
  clause: 'Flashers of signal lamps stop for their signal',
  find: (subject) => {
    const { build, diagrams: d, program, showing } = subject;
    const tied = new Map(build.placements.filter(subject.isFactory).map((p) => [p.id, p] as const));
    const found = new NearestFound(subject);
    for (const { ambient, heeds, modules, reached } of subject.cells)
      for (const index of modules) {
        const module = showing.modules[index];
        const lamp = tied.get(module?.placementId ?? '');
        if (module === undefined || lamp === undefined) continue;
        const wanting = heeds.filter((one) => subject.wants(one, module));
        for (const signal of wanting) {
          const { id, kind } = subject.functionOf(signal);
          if (kind !== 'signal' || lamp.stopsFor.includes(id)) continue;
          for (const flasher of wanting) {
            if (subject.functionOf(flasher).kind === 'signal') continue;
            const both = d.all([reached, program.onVariable(signal), program.onVariable(flasher)]);
            if (both === NONE) continue;
            found.note([about('lamp', lamp.id), about('function', signal)], both, ambient, {
              sentence: `${lamp.label}: its flasher does not stop for ${activeFunctionNames(build, [signal])}. ${activeFunctionNames(build, [flasher])} flashes over the signal.`,
              channels: [{ ...module, slot: 1 }],
            });
          }
        }
      }
    return found.all;
  },
};
