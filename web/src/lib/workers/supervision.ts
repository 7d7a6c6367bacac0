/** What every worker answers besides its own questions. */
export interface Supervised {
  /** Forgets what it holds: it is given back. */
  rest: () => void;
  /** Says that it is there. */
  ping: () => void;
  /** Holds a lock for as long as it lives; answers once it does. */
  holdLock: (name: string) => Promise<void>;
}

/** The worker's side of it. */
export const supervision: Omit<Supervised, 'rest'> = {
  ping: () => undefined,
  holdLock: (name) =>
    new Promise((held) => {
      void navigator.locks.request(name, () => {
        held();
        return new Promise(() => undefined);
      });
    }),
};

/** A worker ended by itself, or does not answer any more. */
export class WorkerLostError extends Error {
  override name = 'WorkerLostError';
}

/** As far as a worker is watched. */
interface Watched {
  readonly ping: () => Promise<void>;
  readonly holdLock: (name: string) => Promise<void>;
}

/** A worker that is asked something is looked after as often as this, ms. */
const LOOK_MS = 5000;
/** So many looks in a row without a sign of life, and it hangs. They are counted, for a clock goes on while all sleeps. */
const MOST_SILENT_LOOKS = 12;

/** Watches a worker: that it lives by a lock, which the browser takes from the dead; that it answers by asking it. */
export class Watch {
  /** Answers, with why, when the worker is lost. */
  readonly lost: Promise<WorkerLostError>;
  readonly #worker: Watched;
  #tell: (error: WorkerLostError) => void = () => undefined;
  /** Questions that are not answered yet. */
  #open = 0;
  #silentLooks = 0;
  #timer: ReturnType<typeof setInterval> | undefined;

  constructor(worker: Watched) {
    this.#worker = worker;
    this.lost = new Promise((tell) => (this.#tell = tell));
    // Where there are no locks, silence alone tells.
    void this.#waitForDeath().catch(() => undefined);
  }

  /** The worker has been heard of. */
  heard(): void {
    this.#silentLooks = 0;
  }

  /** Looks after the worker until an answer comes. */
  async during<R>(answer: Promise<R>): Promise<R> {
    this.#open++;
    this.#timer ??= setInterval(() => this.#look(), LOOK_MS);
    try {
      return await answer;
    } finally {
      this.heard();
      this.#open--;
      if (this.#open === 0) this.end();
    }
  }

  end(): void {
    clearInterval(this.#timer);
    this.#timer = undefined;
  }

  /** It could not be started, or met an error that nobody caught. */
  failed(why: string): void {
    this.#tell(new WorkerLostError(`The calculation stopped unexpectedly: ${why}.`));
  }

  #look(): void {
    this.#silentLooks++;
    if (this.#silentLooks > MOST_SILENT_LOOKS)
      this.#tell(new WorkerLostError('The calculation does not answer any more.'));
    else
      void this.#worker.ping().then(
        () => this.heard(),
        () => undefined,
      );
  }

  async #waitForDeath(): Promise<void> {
    const name = `flarik-worker-${crypto.randomUUID()}`;
    await this.#worker.holdLock(name);
    await navigator.locks.request(name, () =>
      this.#tell(new WorkerLostError('The calculation stopped unexpectedly. Perhaps memory was exhausted.')),
    );
  }
}
