import { eventsOf, partInput } from '../design/inputs.ts';
import { isOpening } from '../vehicle/opening.ts';
import type { MovingPart } from '../vehicle/types.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { partsOf } from './space.ts';
import type { ProofSubject } from './subject.ts';

/** A door, hatch or the like, and its place among the inputs. */
export interface Door {
  readonly part: MovingPart;
  readonly at: number;
}

/** Every part that people open, and stand at while it is open. */
export function doorsOf({ build, reach }: ProofSubject): Door[] {
  const { inputs } = reach.machine.programme;
  return vehicleOf(build.vehicle).parts.flatMap((part) => {
    const at = inputs.findIndex(({ id }) => id === partInput(part.id));
    return isOpening(part.kind) && at >= 0 ? [{ part, at }] : [];
  });
}

/** Of some doors those that hang together with a function: the others stand as they like, whatever it does. */
export function tiedTo({ reach }: ProofSubject, rank: number, doors: readonly Door[]): Door[] {
  const together = partsOf(reach, [rank]).flatMap((at) => reach.parts[at]?.part.variables ?? []);
  return doors.filter(({ at }) => together.some((v) => v.kind === 'input' && v.at === at));
}

/** Of some doors those by which a function comes on or off: its conditions, or events that it hears, name them. */
export function namedBy({ reach: { machine } }: ProofSubject, rank: number, doors: readonly Door[]): Door[] {
  const { wired, programme } = machine;
  const { inputs, functions } = wired.dependsOn(rank);
  const cone = programme.ranked.filter((_, at) => functions.has(at));
  const heard = eventsOf({ ...programme.controls, functions: cone });
  return doors.filter(
    ({ at, part }) =>
      inputs.has(at) || heard.some((e) => e.kind === 'arrives' && e.input === partInput(part.id)),
  );
}
