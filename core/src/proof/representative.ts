import { onsIn, type Programme, type ProgrammeEvent } from '../controls/programme.ts';
import { atRest, step } from '../controls/step.ts';
import type { On } from '../design/controls.ts';

/** A state that was reached: what is on there, what every input is, and the events that lead to it from rest. */
export interface RepresentativeState {
  /** Strongest first; each cycle with its number. */
  readonly on: readonly On[];
  readonly values: ReadonlyMap<string, string>;
  readonly events: readonly ProgrammeEvent[];
}

/**
 * Plays events from rest, one by one, as the program takes them.
 * @throws {RangeError} one of them does not happen: whoever found the sequence is wrong
 */
export function replayed(programme: Programme, events: readonly ProgrammeEvent[]): RepresentativeState {
  const state = events.reduce((now, event) => {
    const next = step(programme, now, event);
    if (next === null) throw new RangeError(`${JSON.stringify(event)} does not happen there`);
    return next.state;
  }, atRest(programme));
  return { on: onsIn(programme, state), values: state.values, events };
}
