import type { ProgrammeEvent } from '../controls/programme.ts';
import { onKey, type On } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import type { Registers } from './machine.ts';
import { Numbering } from './numbering.ts';
import type { Reach } from './reach.ts';

/** Where each part stands: the place of its state among those reached. */
interface Placed {
  readonly places: readonly number[];
}

/** The shortest sequence of events to a moment. */
export const wayTo = ({ parts }: Reach, { places }: Placed): ProgrammeEvent[] =>
  parts.flatMap((part, i) => part.wayTo(places[i] ?? 0));

/** The value of every input at a moment. */
export function valuesAt(reach: Reach, { places }: Placed): ReadonlyMap<string, string> {
  const { machine, parts } = reach;
  const r = registersAt(reach, places);
  return new Map(
    parts.flatMap(({ part }) =>
      part.variables.flatMap((variable): [string, string][] => {
        const input = variable.kind === 'input' ? machine.programme.inputs[variable.at] : undefined;
        const value = input?.values[r.values[variable.at] ?? 0];
        return input === undefined || value === undefined ? [] : [[input.id, value]];
      }),
    ),
  );
}

/** The registers of a moment, judged. */
export function registersAt({ machine, parts }: Reach, places: readonly number[]): Registers {
  const r = machine.blank();
  for (const [i, part] of parts.entries()) new Numbering(part.part).into(part.states[places[i] ?? 0] ?? 0, r);
  machine.judge(machine.wired.inOrder, r);
  return r;
}

/** What is on by name, the strongest first; each cycle with its number. */
export function onNames(ranked: readonly ControlFunction[]): (r: Registers) => On[] {
  const names = ranked.map(({ id, when, shows }) => ({
    byNumber: when.way === 'cycle' ? Array.from(shows, (_, i) => onKey(id, i + 1)) : [],
    name: onKey(id, 1),
  }));
  return ({ on, memory }) => {
    const ons: On[] = [];
    for (const [rank, { byNumber, name }] of names.entries())
      if (on[rank] === 1) ons.push(byNumber[(memory[rank] ?? 1) - 1] ?? name);
    return ons;
  };
}
