import { eventsOf, partInput } from '../design/inputs.ts';
import { isOpening } from '../vehicle/opening.ts';
import type { MovingPart } from '../vehicle/types.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { EVERY, type Diagram } from './diagrams.ts';
import type { VerificationSubject } from './subject.ts';
import type { SymbolicProgram } from './symbolic.ts';

/** A door, hatch or the like, and its place among the inputs. */
export interface Door {
  readonly part: MovingPart;
  readonly at: number;
}

/** Every part that people open, and stand at while it is open. */
export function doorsOf({ build, programme: { inputs } }: VerificationSubject): Door[] {
  return vehicleOf(build.vehicle).parts.flatMap((part) => {
    const at = inputs.findIndex(({ id }) => id === partInput(part.id));
    return isOpening(part.kind) && at >= 0 ? [{ part, at }] : [];
  });
}

/** The states of a program in which one of some doors stands open. */
export function isAnyOpen({ diagrams: d, present }: SymbolicProgram, doors: readonly Door[]): Diagram {
  return d.any(doors.map(({ at }) => d.not(present.input(at)[0] ?? EVERY)));
}

/** Of some doors those by which a function comes on or off: its conditions, or events that it hears, name them. */
export function namedBy(
  { program, programme }: VerificationSubject,
  rank: number,
  doors: readonly Door[],
): Door[] {
  const { wired } = program;
  const { inputs, functions } = wired.dependsOn(rank);
  const cone = programme.ranked.filter((_, at) => functions.has(at));
  const heard = eventsOf({ ...programme.controls, functions: cone });
  return doors.filter(
    ({ at, part }) =>
      inputs.has(at) || heard.some((e) => e.kind === 'arrives' && e.input === partInput(part.id)),
  );
}
