import type { ControlFunction } from '../../design/functions.ts';
import { raisablesOf } from '../../design/raised.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import type { Found, ProofCheck } from '../found.ts';
import type { ProofSubject } from '../subject.ts';

/** A mast, a boom or the pole of a lamp that may stand raised at speed while nothing tells the driver. */
export const raisedMoving: ProofCheck = {
  kind: 'raised-at-speed',
  severity: 'warns',
  clause: 'Nothing stands raised at speed unnoticed',
  alone: true,
  find: (subject) => {
    const { inputs, ranked } = subject.reach.machine.programme;
    const { wired } = subject.reach.machine;
    const placeOf = (input: string): number => inputs.findIndex(({ id }) => id === input);
    const [speed, key] = [placeOf('speed'), placeOf('ignition')];
    const fast = inputs[speed]?.values.indexOf('fast');
    const on = inputs[key]?.values.indexOf('on');
    return raisablesOf(subject.build).flatMap(({ input, name, values: raised }): Found[] => {
      const at = placeOf(input);
      const isRaised = inputs[at]?.values.map((value) => raised.includes(value)) ?? [];
      const telling = ranked.filter((fn, rank) => tells(subject, fn) && wired.dependsOn(rank).inputs.has(at));
      const about = subject.about(
        telling.map((fn) => fn.id),
        [at, speed, key],
      );
      if (about === null)
        return [
          {
            about: input,
            sentence: `too many states to tell whether the ${name} can stand raised at speed unnoticed.`,
            outcome: 'cannot tell',
          },
        ];
      const { space, ranks } = about;
      const unnoticed = space.where(
        ranks,
        (values, isOn) =>
          isRaised[values[at] ?? 0] === true &&
          values[speed] === fast &&
          values[key] === on &&
          ranks.every((rank) => isOn[rank] !== 1),
      );
      if (!unnoticed.includes(1)) return [];
      return [
        {
          about: input,
          sentence: `the ${name} may stand raised at speed, and nothing tells the driver: no buzzer, no key’s lamp and no light in the cab that goes by it is on.`,
          moment: subject.placeIn(about, space.nearest(unnoticed).indexOf(1)),
        },
      ];
    });
  },
};

/** Whether a driver hears or sees that a function is on: by a load, the lamp of a key, or light inside. */
function tells(subject: ProofSubject, fn: ControlFunction): boolean {
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
