import * as Comlink from 'comlink';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Delta } from '@flarik/core/design/delta';
import type { Build } from '@flarik/core/design/schema';
import { demoBuild } from '@flarik/core/test/reference/demo';
import { DesignWorker } from './designWorker';
import { HeldDesign } from './heldDesign';
import { restartWhenIdle } from './spare';
import { WorkerLostError } from './supervision';

/** Stands for a worker: the other end of a channel, with something that it holds. */
class FakeWorker {
  readonly here: MessagePort;
  readonly #there: MessagePort;
  ended = false;
  held = '';
  /** What it still does: it hears nothing meanwhile. */
  #busy: Promise<void> | null = null;
  #die: () => void = () => undefined;

  constructor() {
    const { port1, port2 } = new MessageChannel();
    this.here = port1;
    this.#there = port2;
    Comlink.expose(
      {
        hold: (text: string) => (this.held = text),
        held: () => this.held,
        work: (ms: number) => (this.#busy = new Promise((done) => setTimeout(done, ms))),
        ping: () => undefined,
        holdLock: (name: string) =>
          new Promise<void>((held) => {
            void navigator.locks.request(name, () => {
              held();
              return new Promise<void>((done) => (this.#die = done));
            });
          }),
        rest: async () => {
          await this.#busy;
          this.held = '';
        },
      },
      port2,
    );
  }

  /** Ends by itself: nobody is told but by the lock. */
  die(): void {
    this.close();
    this.#die();
  }

  /** Works on without end: it answers nothing any more. */
  hang(): void {
    this.#there.close();
  }

  close(): void {
    this.ended = true;
    this.here.close();
    this.#there.close();
  }
}

interface Api {
  hold: (text: string) => string;
  held: () => string;
  work: (ms: number) => Promise<void>;
}

const made: FakeWorker[] = [];
const startOf = () =>
  restartWhenIdle<Api>(() => {
    const fake = new FakeWorker();
    made.push(fake);
    return Object.assign(fake.here, { terminate: () => fake.close() });
  });
/** Locks as a browser has them: a name is given to the next when its holder is done. */
class Locks {
  readonly #last = new Map<string, Promise<unknown>>();
  request = (name: string, work: () => unknown): Promise<unknown> => {
    const done = (this.#last.get(name) ?? Promise.resolve()).then(work);
    this.#last.set(name, done);
    return done;
  };
}
beforeEach(() => {
  vi.stubGlobal('navigator', { locks: new Locks() });
});
afterEach(() => {
  for (const fake of made.splice(0)) fake.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

describe('workers that are given back', () => {
  it('answers nobody who gave it back meanwhile', async () => {
    const start = startOf();
    const first = start();
    let answers = 0;
    void first.api.hold('a design').then(() => answers++);
    first.end();
    await pause(20);
    expect(await start().api.held()).toBe('');
    expect(answers).toBe(0);
  });

  it('hears no more of whoever gave it back', async () => {
    const start = startOf();
    const first = start();
    await first.api.hold('a design');
    first.end();
    await pause(20);
    const second = start();
    await second.api.hold('mine');
    void first.api.hold('a late edit');
    expect(await second.api.held()).toBe('mine');
    expect(made).toHaveLength(1);
  });

  it('takes one that was idle again, and it holds nothing', async () => {
    const start = startOf();
    const first = start();
    expect(await first.api.hold('a design')).toBe('a design');
    first.end();
    await pause(20);
    expect(made[0]).toMatchObject({ held: '', ended: false });
    expect(await start().api.hold('another')).toBe('another');
    expect(made.map(({ held }) => held)).toEqual(['another']);
  });

  it('ends one that still works, and starts another', async () => {
    const start = startOf();
    const first = start();
    void first.api.work(5000);
    first.end();
    const second = start();
    await second.api.hold('mine');
    await expect.poll(() => made.map(({ ended }) => ended)).toEqual([true, false]);
    expect(made.map(({ held }) => held)).toEqual(['', 'mine']);
  });

  it('keeps one only, and hears a second end of the same no more', async () => {
    const start = startOf();
    const [first, second] = [start(), start()];
    first.end();
    first.end();
    second.end();
    await expect.poll(() => made.map(({ ended }) => ended)).toEqual([false, true]);
    // It is somebody else's now, whatever the first does.
    const third = start();
    await third.api.hold('mine');
    first.end();
    await pause(20);
    expect(made.map(({ held }) => held)).toEqual(['mine', '']);
  });
});

describe('workers that are lost', () => {
  it('tells whoever waits that it stopped unexpectedly, at once', async () => {
    const start = startOf();
    const first = start();
    await first.api.hold('a design');
    const waits = first.api.work(60_000);
    made[0]?.die();
    await expect(waits).rejects.toThrow('The calculation stopped unexpectedly');
    await expect(first.api.held()).rejects.toThrow(WorkerLostError);
    first.end();
    // Whoever asks it after another has let go of it hears so too.
    await expect(first.api.held()).rejects.toThrow(WorkerLostError);
    await pause(20);
    expect(await start().api.hold('another')).toBe('another');
    expect(made).toHaveLength(2);
  });

  it('is not taken again when it ended while it was idle', async () => {
    const start = startOf();
    const first = start();
    await first.api.hold('a design');
    first.end();
    await pause(20);
    made[0]?.die();
    await pause(20);
    expect(await start().api.hold('another')).toBe('another');
    expect(made).toHaveLength(2);
  });

  it('gives up one that does not answer for a minute, and not before', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    const first = startOf()();
    await first.api.hold('a design');
    made[0]?.hang();
    const waits = first.api.held();
    let told = '';
    waits.catch((error: unknown) => (told = String(error)));
    await vi.advanceTimersByTimeAsync(59_000);
    expect(told).toBe('');
    await vi.advanceTimersByTimeAsync(7000);
    await expect(waits).rejects.toThrow('does not answer any more');
    expect(made[0]?.ended).toBe(true);
  });

  it('waits for one that works long, as long as it is heard of', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    const first = startOf()();
    await first.api.hold('a design');
    made[0]?.hang();
    let told = '';
    first.api.held().catch((error: unknown) => (told = String(error)));
    for (let i = 0; i < 10; i++) {
      await vi.advanceTimersByTimeAsync(30_000);
      first.heard();
    }
    expect(told).toBe('');
  });

  it('looks after nobody while nothing is asked', async () => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval'] });
    const first = startOf()();
    await first.api.hold('a design');
    expect(vi.getTimerCount()).toBe(0);
  });
});

describe('a worker with a design', () => {
  interface Asked {
    take: (build: Build) => void;
    edit: (delta: Delta) => void;
    notes: () => string;
  }
  const build = demoBuild('ks-12');

  /** Workers that die at the question with these numbers, counted over all of them. */
  function dying(...questions: number[]) {
    let asked = 0;
    const start = restartWhenIdle<Asked>(() => {
      const { port1, port2 } = new MessageChannel();
      const design = new HeldDesign();
      let die = (): void => undefined;
      const holdLock = (name: string) =>
        new Promise<void>((held) => {
          void navigator.locks.request(name, () => {
            held();
            return new Promise<void>((done) => (die = done));
          });
        });
      const notes = (): string | Promise<string> => {
        if (!questions.includes(asked++)) return design.present.notes;
        die();
        return new Promise<string>(() => undefined);
      };
      Comlink.expose(
        {
          take: design.take,
          edit: design.edit,
          notes,
          rest: () => undefined,
          ping: () => undefined,
          holdLock,
        },
        port2,
      );
      return Object.assign(port1, {
        terminate: () => {
          port1.close();
          port2.close();
        },
      });
    });
    return new DesignWorker(start);
  }

  it('that is lost is replaced, gets the latest design, and is asked again', async () => {
    const worker = dying(1);
    expect(await worker.ask(build, (api) => api.notes())).toBe(build.notes);
    const edited = { ...build, notes: 'edited' };
    expect(await worker.ask(edited, (api) => api.notes())).toBe('edited');
    worker.end();
  });

  it('that is lost twice is told, and starts afresh with the next question', async () => {
    const worker = dying(0, 1);
    await expect(worker.ask(build, (api) => api.notes())).rejects.toThrow(
      /stopped unexpectedly.* It was started twice/,
    );
    expect(await worker.ask(build, (api) => api.notes())).toBe(build.notes);
    worker.end();
  });

  it('replaces it once for all that had asked', async () => {
    const worker = dying(1);
    const both = [0, 1, 2].map(() => worker.ask(build, (api) => api.notes()));
    expect(await Promise.all(both)).toEqual([build.notes, build.notes, build.notes]);
    worker.end();
  });
});
