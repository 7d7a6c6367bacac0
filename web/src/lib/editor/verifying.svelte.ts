import type { Build } from '@flarik/core/design/schema';
import type { Progress, Verification } from '@flarik/core/verification/prove';
import type { CheckResult } from '@flarik/core/rules/finding';
import * as Comlink from 'comlink';
import { DesignWorker } from '$lib/workers/designWorker';
import { startVerification } from '$lib/workers/verification';

/** Edits that follow each other quicker than this are proved once, ms. */
const QUIET_MS = 1500;

/** A build, and what is known of its functions by themselves. */
type Checked = { readonly build: Build } & CheckResult;

/** The proof of the open build: in the background, the latest only. */
export class Verifying {
  /** The last proof, and the build it is of. */
  answer = $state.raw<(Verification & { readonly build: Build }) | null>(null);
  progress = $state.raw<Progress | null>(null);
  error = $state.raw<Error | null>(null);
  /** Whoever waits stopped it. */
  stopped = $state(false);
  readonly #worker = new DesignWorker(startVerification);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #asked: Checked | null = null;
  #run = 0;

  /** Proves a build once it has been quiet. */
  ask(checked: Checked): void {
    if (checked.build === this.#asked?.build && this.error === null) return;
    this.#asked = checked;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#prove(checked), this.answer === null ? 0 : QUIET_MS);
  }

  /** Begins anew with the build it was last asked for. */
  again(): void {
    if (this.#asked !== null) void this.#prove(this.#asked);
  }

  stop(): void {
    clearTimeout(this.#timer);
    this.#run++;
    this.stopped = true;
    this.progress = null;
    // What it looks at just now may take a second: a new worker is there sooner.
    this.end();
  }

  end(): void {
    clearTimeout(this.#timer);
    this.#worker.end();
  }

  async #prove({ build, findings, outcomes }: Checked): Promise<void> {
    const run = ++this.#run;
    this.stopped = false;
    this.error = null;
    this.progress = { done: 0, of: 1, what: 'every state' };
    let isDone = false;
    try {
      const proof = await this.#worker.ask(build, (api, heard) =>
        api.prove(
          { findings, outcomes },
          Comlink.proxy((progress: Progress) => {
            heard();
            // It comes by another way than the answer, and may come after it.
            if (run === this.#run && !isDone) this.progress = progress;
          }),
        ),
      );
      isDone = true;
      if (run !== this.#run || proof === null) return;
      this.answer = { ...proof, build };
      this.progress = null;
    } catch (error) {
      isDone = true;
      if (run !== this.#run) return;
      this.error = error instanceof Error ? error : new Error(String(error));
      this.progress = null;
    }
  }
}
