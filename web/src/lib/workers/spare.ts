import * as Comlink from 'comlink';

/** What every worker answers when it is given back: it forgets what it holds. */
export interface Rests {
  rest: () => void;
}

/** A worker, as far as it is used here. */
type Ended = Comlink.Endpoint & Pick<Worker, 'terminate'>;

export interface Started<Api> {
  readonly api: Comlink.Remote<Api>;
  /** Gives the worker back; one that still works is ended, whatever it does. */
  readonly end: () => void;
}

/** What does not answer within this, ms, still works. */
const ANSWERS_WITHIN_MS = 100;

/** What a worker that ended answers. */
const SILENCE = new Promise<never>(() => undefined);

/**
 * Starts workers of one kind, and keeps one that was given back idle: to start one and to have its code made fast
 * takes longer than most of what it is asked, so that the next build opened in this tab need not wait for it.
 */
export function restartWhenIdle<Api extends object>(create: () => Ended): () => Started<Api> {
  interface Kept {
    readonly worker: Ended;
    readonly api: Comlink.Remote<Api>;
    readonly rests: Comlink.Remote<Rests>;
  }
  let spare: Kept | null = null;

  async function giveBack(kept: Kept): Promise<void> {
    const late = new Promise<'late'>((done) => setTimeout(() => done('late'), ANSWERS_WITHIN_MS));
    const answer = await Promise.race([kept.rests.rest(), late]);
    if (answer === 'late' || spare !== null) kept.worker.terminate();
    else spare = kept;
  }

  return () => {
    let taken = spare;
    spare = null;
    if (taken === null) {
      const worker = create();
      taken = { worker, api: Comlink.wrap<Api>(worker), rests: Comlink.wrap<Rests>(worker) };
    }
    const kept = taken;
    let given = false;
    const end = (): void => {
      if (!given) void giveBack(kept);
      given = true;
    };
    // Whoever gave it back hears from it as little as from one that ended: it may be another's by now.
    const heard = async (answer: unknown): Promise<unknown> => {
      await Promise.allSettled([answer]);
      return given ? SILENCE : answer;
    };
    const api = new Proxy(kept.api, {
      get: (worker, name): unknown => {
        const call: unknown = Reflect.get(worker, name);
        if (given || typeof call !== 'function') return () => SILENCE;
        return (...asked: unknown[]) => heard(Reflect.apply(call, worker, asked));
      },
    });
    return { api, end };
  };
}
