import type { Build } from '@flarik/core/design/schema';

interface Step {
  readonly label: string;
  /** Steps of one gesture, such as nudges of one lamp, run together under one key. */
  readonly key: string | null;
  readonly before: Build;
  readonly after: Build;
}

/** Undo and redo as two stacks; documents share what they have in common, so a step is cheap. */
export class History {
  readonly #done: Step[] = [];
  #undone: Step[] = [];

  record(label: string, before: Build, after: Build, key: string | null): void {
    this.#undone = [];
    const last = this.#done.at(-1);
    if (key !== null && last?.key === key) this.#done.splice(-1, 1, { ...last, after });
    else this.#done.push({ label, key, before, after });
  }

  get undoLabel(): string | null {
    return this.#done.at(-1)?.label ?? null;
  }

  get redoLabel(): string | null {
    return this.#undone.at(-1)?.label ?? null;
  }

  /** The build before the last step; null when there is none. */
  undo(): Build | null {
    const step = this.#done.pop();
    if (step === undefined) return null;
    this.#undone.push(step);
    return step.before;
  }

  /** The build after the step last undone; null when there is none. */
  redo(): Build | null {
    const step = this.#undone.pop();
    if (step === undefined) return null;
    this.#done.push({ ...step, key: null });
    return step.after;
  }
}
