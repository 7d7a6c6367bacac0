import * as Comlink from 'comlink';
import { afterEach, describe, expect, it } from 'vitest';
import { restartWhenIdle } from './spare';

/** Stands for a worker: the other end of a channel, with something that it holds. */
class FakeWorker {
  readonly here: MessagePort;
  readonly #there: MessagePort;
  ended = false;
  held = '';
  /** What it still does: it hears nothing meanwhile. */
  #busy: Promise<void> | null = null;

  constructor() {
    const { port1, port2 } = new MessageChannel();
    this.here = port1;
    this.#there = port2;
    Comlink.expose(
      {
        hold: (text: string) => (this.held = text),
        held: () => this.held,
        work: (ms: number) => (this.#busy = new Promise((done) => setTimeout(done, ms))),
        rest: async () => {
          await this.#busy;
          this.held = '';
        },
      },
      port2,
    );
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

  afterEach(() => {
    for (const fake of made.splice(0)) fake.close();
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
