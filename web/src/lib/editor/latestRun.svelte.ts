/** Runs an async call for the newest input only: an older answer that arrives late is dropped. */
export class LatestRun<I, O> {
  /** The last good answer; out of date while `running` or after `error`. */
  answer = $state.raw<O | null>(null);
  error = $state.raw<Error | null>(null);
  running = $state(false);
  #ticket = 0;
  readonly #call: (input: I) => Promise<O>;

  constructor(call: (input: I) => Promise<O>) {
    this.#call = call;
  }

  async run(input: I): Promise<void> {
    const ticket = ++this.#ticket;
    this.running = true;
    try {
      const answer = await this.#call(input);
      if (ticket !== this.#ticket) return;
      this.answer = answer;
      this.error = null;
    } catch (error) {
      if (ticket !== this.#ticket) return;
      this.error = error instanceof Error ? error : new Error(String(error));
    }
    this.running = false;
  }
}
