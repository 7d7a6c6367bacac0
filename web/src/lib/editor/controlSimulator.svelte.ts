import type { TestStep } from '@flarik/core/design/controls';
import type { InputEvent } from '@flarik/core/design/condition';
import type { Build } from '@flarik/core/design/schema';
import { loadsIn, onsIn, compileProgram, type ControlProgram } from '@flarik/core/controls/program';
import {
  applyEvent,
  nextDue,
  advanceTime,
  initialSimulation,
  type Simulation,
} from '@flarik/core/controls/simulator';
import type { TestRun } from '@flarik/core/controls/controlTest';
import { stateIn } from '@flarik/core/state/running';
import type { State } from '@flarik/core/state/state';

/** A trial holds no more steps. */
export const MOST_STEPS = 200;

/** The controls of the open build, operated by hand: what was done so far, and where that led. */
export class ControlSimulator {
  /** The steps taken since rest. */
  steps = $state.raw<readonly TestStep[]>([]);
  /** Whether what is looked at follows the controls. */
  following = $state(false);
  /** Why the last step did not happen; null when it did. */
  refusal = $state<string | null>(null);
  readonly #build: () => Build;
  readonly #look: (state: State) => void;
  /** What was played for a programme, to go on from. */
  #played: { readonly programme: ControlProgram; readonly list: readonly TestRun[] } | null = null;

  constructor(build: () => Build, look: (state: State) => void) {
    this.#build = build;
    this.#look = look;
  }

  readonly programme = $derived.by(() => compileProgram(this.#build()));
  readonly played = $derived.by(() => this.#play());
  readonly running = $derived.by(
    (): Simulation => this.played.at(-1)?.running ?? initialSimulation(this.programme),
  );
  readonly on = $derived.by(() => onsIn(this.programme, this.running.state));
  readonly loads = $derived.by(() => loadsIn(this.programme, this.running.state));
  readonly due = $derived.by(() => nextDue(this.programme, this.running));

  valueOf(inputId: string): string {
    return this.running.state.values.get(inputId) ?? '';
  }

  /** Operates a control, or lets something happen to the vehicle. */
  operate(event: InputEvent): void {
    this.#take({ kind: 'event', event });
  }

  wait(ms: number): void {
    this.#take({ kind: 'wait', ms });
  }

  /** Takes the last step back. */
  back(): void {
    this.#goTo(this.steps.slice(0, -1));
  }

  /** Everything at rest again. */
  reset(): void {
    this.#goTo([]);
  }

  /** Takes these steps from rest, in place of those taken so far. */
  replay(steps: readonly TestStep[]): void {
    this.#goTo(steps);
  }

  /** What is looked at follows the controls from now on. */
  follow(): void {
    this.following = true;
    this.#look(stateIn(this.programme, this.running));
  }

  #take(step: TestStep): void {
    if (this.steps.length >= MOST_STEPS) {
      this.refusal = `${MOST_STEPS} steps are recorded. Reset first.`;
      return;
    }
    const before = this.running;
    const next =
      step.kind === 'wait'
        ? advanceTime(this.programme, before, step.ms)
        : applyEvent(this.programme, before, step.event);
    if (next === null) {
      this.refusal = 'No effect: the input already has this value, or the combination is excluded.';
      return;
    }
    this.#goTo([...this.steps, step]);
  }

  #goTo(steps: readonly TestStep[]): void {
    this.steps = steps;
    this.refusal = null;
    this.follow();
  }

  /** Goes on from what was played before, as far as it is the same. */
  #play(): readonly TestRun[] {
    const { programme, steps } = this;
    const known = this.#played?.programme === programme ? this.#played.list : [];
    let same = 0;
    while (same < known.length && same < steps.length && known[same]?.step === steps[same]) same++;
    const list = known.slice(0, same);
    let now = list.at(-1)?.running ?? initialSimulation(programme);
    for (const step of steps.slice(same)) {
      const next =
        step.kind === 'wait' ? advanceTime(programme, now, step.ms) : applyEvent(programme, now, step.event);
      now = next ?? now;
      list.push({ step, running: now, refused: next === null });
    }
    this.#played = { programme, list };
    return list;
  }
}
