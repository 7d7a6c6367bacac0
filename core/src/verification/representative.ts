import { onsIn, type ControlState, type ControlProgram, type ProgramEvent } from '../controls/program.ts';
import { initialControlState, step } from '../controls/step.ts';
import type { ActiveFunction } from '../design/controls.ts';
import { NotReplayed } from './cannotTell.ts';

/** A state that was reached: what is on there, and the events that lead to it from rest. */
export interface RepresentativeState {
  /** Strongest first; each cycle with its number. */
  readonly on: readonly ActiveFunction[];
  readonly events: readonly ProgramEvent[];
  /** All that the program remembers there. */
  readonly state: ControlState;
}

/**
 * Plays events from rest, one by one, as the program takes them.
 * @throws {NotReplayed} one of them does not happen: whoever found the sequence is wrong
 */
export function replayed(programme: ControlProgram, events: readonly ProgramEvent[]): RepresentativeState {
  const state = events.reduce((now, event) => {
    const next = step(programme, now, event);
    if (next === null) throw new NotReplayed(events);
    return next.state;
  }, initialControlState(programme));
  return { on: onsIn(programme, state), events, state };
}
