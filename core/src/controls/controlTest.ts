import type { ControlTest, TestStep } from '../design/controls.ts';
import { onsIn, type ControlProgram } from './program.ts';
import { applyEvent, advanceTime, initialSimulation, type Simulation } from './simulator.ts';

/** What a step of a trial led to. */
export interface TestRun {
  readonly step: TestStep;
  readonly running: Simulation;
  /** The event did not happen: the input stood there already, or the values together are forbidden. */
  readonly refused: boolean;
}

/** Plays steps from rest, one after the other. */
export function play(programme: ControlProgram, steps: readonly TestStep[]): TestRun[] {
  let now = initialSimulation(programme);
  return steps.map((step) => {
    const next =
      step.kind === 'wait' ? advanceTime(programme, now, step.ms) : applyEvent(programme, now, step.event);
    now = next ?? now;
    return { step, running: now, refused: next === null };
  });
}

/** How a trial came out. */
export interface TestOutcome {
  readonly trial: ControlTest;
  /** Functions that must be on in the end and are not, and the other way round. */
  readonly missing: readonly string[];
  readonly surplus: readonly string[];
}

export function runTest(programme: ControlProgram, trial: ControlTest): TestOutcome {
  const last = play(programme, trial.steps).at(-1)?.running ?? initialSimulation(programme);
  const on = onsIn(programme, last.state);
  return {
    trial,
    missing: trial.on.filter((key) => !on.includes(key)),
    surplus: on.filter((key) => !trial.on.includes(key)),
  };
}
