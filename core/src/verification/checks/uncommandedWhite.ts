import type { ModuleRef } from '../../design/schema.ts';
import { isWarning } from '../../resolve/channels.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { isByItself } from '../actions.ts';
import { doorsOf, isAnyOpen } from '../doors.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import { nearestChange } from '../changes.ts';
import { about } from '../../rules/subject.ts';

/** White that comes on by itself while a door or hatch stands open: by the vehicle or a timer, not by an operator. */
export const uncommandedWhite: VerificationCheck = {
  kind: 'unasked-white',
  severity: 'advises',
  clause: 'White does not start automatically with an open door',
  alone: true,
  find: (subject) => {
    const { build } = subject;
    const lookup = lookupOf(build);
    const isOutside = ({ placementId }: ModuleRef): boolean =>
      build.placements.some((p) => p.id === placementId && isWarning(lookup.fixture(p.fixtureId)));
    const doors = doorsOf(subject);
    return subject.functions.flatMap((fn): VerificationFinding[] => {
      if (fn.kind === 'signal' || fn.kind === 'stage') return [];
      const white = subject
        .wantsOf(fn)
        .some(
          (want) => want?.claims.some(({ colour, drive }) => colour === 'white' && isOutside(drive)) === true,
        );
      if (!white) return [];
      const reached = subject.reached.of([fn.id]);
      const { program } = reached;
      const d = program.diagrams;
      const isOn = program.present.isOn(program.wired.rankOf(fn.id) ?? -1);
      const where = nearestChange(subject, reached, {
        from: d.not(isOn),
        to: d.and(isOn, isAnyOpen(program, doors)),
        by: isByItself,
      });
      if (where === null)
        return reached.within === null
          ? []
          : [
              {
                subjects: [about('function', fn.id)],
                sentence: `${fn.name} does not start automatically within ${reached.within} events. Longer sequences were not checked.`,
                outcome: 'cannot tell',
              },
            ];
      const door = doors.find(({ part }) =>
        subject.stateAt(where).open.some((id) => part.stops.some((s) => s.id === id)),
      );
      return [
        {
          subjects: [about('function', fn.id)],
          sentence: `${fn.name} switches white on automatically while the ${door?.part.name.toLowerCase() ?? 'door'} is open.`,
          where,
        },
      ];
    });
  },
};
