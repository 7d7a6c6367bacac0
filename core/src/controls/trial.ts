import type { Trial, TrialStep } from '../design/controls.ts';
import { onsIn, type Programme } from './programme.ts';
import { happens, passed, started, type Running } from './simulator.ts';

/** What a step of a trial led to. */
export interface Played {
  readonly step: TrialStep;
  readonly running: Running;
  /** The event did not happen: the input stood there already, or the values together are forbidden. */
  readonly refused: boolean;
}

/** Plays steps from rest, one after the other. */
export function play(programme: Programme, steps: readonly TrialStep[]): Played[] {
  let now = started(programme);
  return steps.map((step) => {
    const next = step.kind === 'wait' ? passed(programme, now, step.ms) : happens(programme, now, step.event);
    now = next ?? now;
    return { step, running: now, refused: next === null };
  });
}

/** How a trial came out. */
export interface TrialOutcome {
  readonly trial: Trial;
  /** Functions that must be on in the end and are not, and the other way round. */
  readonly missing: readonly string[];
  readonly surplus: readonly string[];
}

export function runTrial(programme: Programme, trial: Trial): TrialOutcome {
  const last = play(programme, trial.steps).at(-1)?.running ?? started(programme);
  const on = onsIn(programme, last.state);
  return {
    trial,
    missing: trial.on.filter((key) => !on.includes(key)),
    surplus: on.filter((key) => !trial.on.includes(key)),
  };
}
