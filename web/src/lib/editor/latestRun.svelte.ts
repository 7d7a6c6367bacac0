/** Runs an async call for the newest input only: while one runs, of those that come the last one waits. */
export class LatestRun<I, O> {
  /** The last good answer; out of date while `running` or after `error`. */
  answer = $state.raw<O | null>(null);
  error = $state.raw<Error | null>(null);
  running = $state(false);
  /** Not for the screen, so that an effect that runs a call does not wait on it. */
  #busy = false;
  #waiting: { readonly input: I } | null = null;
  readonly #call: (input: I) => Promise<O>;

  constructor(call: (input: I) => Promise<O>) {
    this.#call = call;
  }

  async run(input: I): Promise<void> {
    this.#waiting = { input };
    if (this.#busy) return;
    this.#busy = true;
    this.running = true;
    while (this.#waiting !== null) {
      const next: { readonly input: I } = this.#waiting;
      this.#waiting = null;
      await this.#answer(next.input);
    }
    this.#busy = false;
    this.running = false;
  }

  async #answer(input: I): Promise<void> {
    try {
      const answer = await this.#call(input);
      if (this.#waiting !== null) return;
      this.answer = answer;
      this.error = null;
    } catch (error) {
      if (this.#waiting !== null) return;
      this.error = error instanceof Error ? error : new Error(String(error));
    }
  }
}
