import * as Comlink from 'comlink';
import { Watch, type Supervised, type WorkerLostError } from './supervision';

/** A worker, as far as it is used here. */
type Ended = Comlink.Endpoint & Pick<Worker, 'terminate'>;

export interface Started<Api> {
  /** What it can be asked; all that is not answered is rejected when the worker is lost. */
  readonly api: Comlink.Remote<Api>;
  /** Tells that the worker has been heard of, by another way than an answer. */
  readonly heard: () => void;
  /** Gives the worker back; one that still works is ended, whatever it does. */
  readonly end: () => void;
}

/** What does not answer within this, ms, still works. */
const ANSWERS_WITHIN_MS = 100;

/** What a worker that ended answers. */
const SILENCE = new Promise<never>(() => undefined);

interface Kept<Api> {
  readonly worker: Ended;
  readonly api: Comlink.Remote<Api>;
  readonly supervised: Comlink.Remote<Supervised>;
  readonly watch: Watch;
  /** Why it is lost; null while it lives. */
  lost: WorkerLostError | null;
  /** Who waits for an answer, to be told when it is lost. */
  readonly waiting: Set<(error: WorkerLostError) => void>;
}

/**
 * Waits for an answer of a worker.
 * @throws {WorkerLostError} the worker is lost, before or meanwhile
 */
async function unlessLost<Api>(kept: Kept<Api>, answer: unknown): Promise<unknown> {
  if (kept.lost !== null) throw kept.lost;
  let tell: (error: WorkerLostError) => void = () => undefined;
  const lost = new Promise<never>((_, reject) => (tell = reject));
  kept.waiting.add(tell);
  try {
    return await kept.watch.during(Promise.race([answer, lost]));
  } finally {
    kept.waiting.delete(tell);
  }
}

/**
 * Starts workers of one kind, and keeps one that was given back idle: to start one and to have its code made fast
 * takes longer than most of what it is asked, so that the next build opened in this tab need not wait for it.
 */
export function restartWhenIdle<Api extends object>(create: () => Ended): () => Started<Api> {
  let spare: Kept<Api> | null = null;

  function begin(): Kept<Api> {
    const worker = create();
    const supervised = Comlink.wrap<Supervised>(worker);
    const watch = new Watch(supervised);
    const kept: Kept<Api> = {
      worker,
      api: Comlink.wrap<Api>(worker),
      supervised,
      watch,
      lost: null,
      waiting: new Set(),
    };
    worker.addEventListener('error', (event) =>
      watch.failed(
        'message' in event && typeof event.message === 'string' ? event.message : 'it was not started',
      ),
    );
    void watch.lost.then((error) => {
      kept.lost = error;
      for (const tell of kept.waiting) tell(error);
      watch.end();
      worker.terminate();
      if (spare === kept) spare = null;
    });
    return kept;
  }

  async function giveBack(kept: Kept<Api>): Promise<void> {
    const late = new Promise<'late'>((done) => setTimeout(() => done('late'), ANSWERS_WITHIN_MS));
    const rested = kept.supervised.rest().catch(() => 'late' as const);
    const answer = await Promise.race([rested, late]);
    kept.watch.end();
    if (answer === 'late' || spare !== null) kept.worker.terminate();
    else spare = kept;
  }

  return () => {
    const kept = spare ?? begin();
    spare = null;
    let given = false;
    const end = (): void => {
      // One that is lost is gone already, and all who ask it are to hear so.
      if (given || kept.lost !== null) return;
      given = true;
      void giveBack(kept);
    };
    // Whoever gave it back hears from it as little as from one that ended: it may be another's by now.
    const heard = async (answer: unknown): Promise<unknown> => {
      try {
        const value = await unlessLost(kept, answer);
        return given ? await SILENCE : value;
      } catch (error) {
        if (given) return await SILENCE;
        throw error;
      }
    };
    const api = new Proxy(kept.api, {
      get: (worker, name): unknown => {
        const call: unknown = Reflect.get(worker, name);
        if (given || typeof call !== 'function') return () => SILENCE;
        return (...asked: unknown[]) => heard(Reflect.apply(call, worker, asked));
      },
    });
    return { api, end, heard: () => kept.watch.heard() };
  };
}
