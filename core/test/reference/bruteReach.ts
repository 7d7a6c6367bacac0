import type { ControlState, ControlProgram, ProgramEvent } from '../../src/controls/program.ts';
import { initialControlState, isTiming, step } from '../../src/controls/step.ts';
import { eventsOf } from '../../src/design/inputs.ts';

/** A state with the number of events it takes to get there. */
export interface Met {
  readonly state: ControlState;
  readonly depth: number;
}

const keyOf = ({ values, memory, phases }: ControlState): string =>
  [...values.values(), '|', ...memory.values(), '|', ...phases.values()].join(' ');

/** Everything that may happen but timers: each input to each value, each press that is listened to. */
export function happenings(programme: ControlProgram): ProgramEvent[] {
  const { inputs, controls } = programme;
  const presses = eventsOf(controls).filter(
    (e) =>
      e.kind === 'chord' ||
      (e.kind === 'press' &&
        (e.press === 'long' || !programme.hasValue(e.control) || programme.isDeliberate(e.control))),
  );
  return [
    ...inputs.flatMap(({ id, values }) =>
      values.map((value): ProgramEvent => ({ kind: 'arrives', input: id, value })),
    ),
    ...presses,
  ];
}

/** Every state that can be reached, breadth first, over plain objects and by `step` alone. */
export function bruteReach(programme: ControlProgram): Met[] {
  const events = happenings(programme);
  const start = initialControlState(programme);
  const met = new Set([keyOf(start)]);
  const out: Met[] = [{ state: start, depth: 0 }];
  for (const { state, depth } of out) {
    const timers = programme.controls.functions
      .filter((fn) => isTiming(state, fn))
      .map((fn): ProgramEvent => ({ kind: 'ends', functionId: fn.id }));
    for (const event of [...events, ...timers]) {
      const next = step(programme, state, event)?.state;
      if (next === undefined || met.has(keyOf(next))) continue;
      met.add(keyOf(next));
      out.push({ state: next, depth: depth + 1 });
    }
  }
  return out;
}

/** Which functions are on, each cycle with its number: what makes a picture. */
export const pictureOf = (programme: ControlProgram, { on, memory }: ControlState): string =>
  programme.ranked
    .filter(({ id }) => on.has(id))
    .map((fn) => (fn.when.way === 'cycle' ? `${fn.id}:${memory.get(fn.id) ?? 0}` : fn.id))
    .join();
