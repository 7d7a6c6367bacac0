import type { Build } from '@flarik/core/design/schema';
import type { Progress, Proof } from '@flarik/core/proof/prove';
import * as Comlink from 'comlink';
import { startProof } from '$lib/workers/proof';

/** Edits that follow each other quicker than this are proved once, ms. */
const QUIET_MS = 700;

/** The proof of the open build: in the background, the latest only. */
export class Proving {
  /** The last proof; of an earlier build while `running` or `stopped`. */
  answer = $state.raw<Proof | null>(null);
  progress = $state.raw<Progress | null>(null);
  error = $state.raw<Error | null>(null);
  /** Whoever waits stopped it. */
  stopped = $state(false);
  #worker: ReturnType<typeof startProof> | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #build: Build | null = null;
  #run = 0;

  /** Proves a build once it has been quiet. */
  ask(build: Build): void {
    if (build === this.#build && this.error === null) return;
    this.#build = build;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.#prove(build), this.answer === null ? 0 : QUIET_MS);
  }

  /** Begins anew with the build it was last asked for. */
  again(): void {
    if (this.#build !== null) void this.#prove(this.#build);
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
    this.#worker?.end();
    this.#worker = null;
  }

  async #prove(build: Build): Promise<void> {
    const run = ++this.#run;
    this.#worker ??= startProof();
    this.stopped = false;
    this.error = null;
    this.progress = { done: 0, of: 1, what: 'every state' };
    try {
      const proof = await this.#worker.api.prove(
        build,
        Comlink.proxy((progress: Progress) => {
          if (run === this.#run) this.progress = progress;
        }),
      );
      if (run !== this.#run || proof === null) return;
      this.answer = proof;
      this.progress = null;
    } catch (error) {
      if (run !== this.#run) return;
      this.error = error instanceof Error ? error : new Error(String(error));
      this.progress = null;
    }
  }
}
