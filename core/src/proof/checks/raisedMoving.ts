import { partInput } from '../../design/inputs.ts';
import { lampMoves } from '../../design/lampMoves.ts';
import type { ControlFunction } from '../../design/functions.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
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
    return raisable(subject).flatMap(({ id, name, at }): Found[] => {
      const telling = ranked.filter((fn, rank) => tells(subject, fn) && wired.dependsOn(rank).inputs.has(at));
      const about = subject.about(
        telling.map((fn) => fn.id),
        [at, speed, key],
      );
      if (about === null)
        return [
          {
            about: id,
            sentence: `too many states to tell whether the ${name} can stand raised at speed unnoticed.`,
            outcome: 'cannot tell',
          },
        ];
      const { space, ranks } = about;
      const unnoticed = space.where(
        ranks,
        (values, isOn) =>
          (values[at] ?? 0) > 0 &&
          values[speed] === fast &&
          values[key] === on &&
          ranks.every((rank) => isOn[rank] !== 1),
      );
      if (!unnoticed.includes(1)) return [];
      return [
        {
          about: id,
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

/** What is raised above the vehicle, and its place among the inputs. */
function raisable({
  build,
  reach,
}: ProofSubject): { readonly id: string; readonly name: string; readonly at: number }[] {
  const { inputs } = reach.machine.programme;
  const masts = vehicleOf(build.vehicle)
    .parts.filter(({ kind }) => kind === 'mast')
    .map((part) => ({ id: partInput(part.id), name: part.name.toLowerCase() }));
  const poles = lampMoves(build)
    .filter(({ stops }) => stops.some(({ moved }) => moved.poleM !== undefined))
    .map(({ input, name }) => ({ id: input, name }));
  return [...masts, ...poles].flatMap((one) => {
    const at = inputs.findIndex(({ id }) => id === one.id);
    return at < 0 ? [] : [{ ...one, at }];
  });
}
