import type { ControlFunction } from '../../design/functions.ts';
import { raisablesOf } from '../../design/raised.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import type { VerificationSubject } from '../subject.ts';
import { isAnyOn } from './stuck.ts';
import { about } from '../../rules/subject.ts';

/** A mast, a boom or the pole of a lamp that may stand raised at speed while nothing tells the driver. */
export const raisedMoving: VerificationCheck = {
  kind: 'raised-at-speed',
  severity: 'warns',
  clause: 'Raised parts at speed are reported',
  alone: true,
  find: (subject) => {
    const { programme, program: whole } = subject;
    return raisablesOf(subject.build).flatMap(({ input, name, values: raised }): VerificationFinding[] => {
      const at = whole.wired.placeOf(input) ?? -1;
      const telling = programme.ranked.filter(
        (fn, rank) => tells(subject, fn) && whole.wired.dependsOn(rank).inputs.has(at),
      );
      const reached = subject.reached.of(telling.map((fn) => fn.id));
      const { program, states, within } = reached;
      const d = program.diagrams;
      const is = (id: string, values: readonly string[]) =>
        program.holds({ kind: 'is', input: id, values: [...values] });
      const unnoticed = d.all([
        states,
        is(input, raised),
        is('speed', ['fast']),
        is('ignition', ['on']),
        d.not(
          isAnyOn(
            program,
            telling.map((fn) => fn.id),
          ),
        ),
      ]);
      const where = subject.nearest(unnoticed, reached);
      if (where === null)
        return within === null
          ? []
          : [
              {
                subjects: [about('input', input)],
                sentence: `the ${name} is not raised at speed without a warning within ${within} events. Longer sequences were not checked.`,
                outcome: 'cannot tell',
              },
            ];
      return [
        {
          subjects: [about('input', input)],
          sentence: `the ${name} can be raised at speed without a warning to the driver. Add a buzzer, key indicator or cab light.`,
          where,
        },
      ];
    });
  },
};

/** Whether a driver hears or sees that a function is on: by a load, the lamp of a key, or light inside. */
function tells(subject: VerificationSubject, fn: ControlFunction): boolean {
  const { build } = subject;
  const lookup = lookupOf(build);
  return (
    fn.shows.some(({ loads }) => loads.length > 0) ||
    build.controls.panels.some(({ controls }) =>
      controls.some((control) => control.kind === 'button' && control.lamp?.functionId === fn.id),
    ) ||
    subject
      .wantsOf(fn)
      .some(
        (want) =>
          want?.claims.some(({ drive }) =>
            build.placements.some(
              (p) => p.id === drive.placementId && lookup.fixture(p.fixtureId).kind === 'cabin',
            ),
          ) === true,
      )
  );
}
