import { expect, test } from 'vitest';
import { LatestRun } from './latestRun.svelte';

/** A call that answers when told to. */
function heldCall() {
  const asked: number[] = [];
  const waiting: ((fail?: string) => void)[] = [];
  const call = (n: number): Promise<number> => {
    asked.push(n);
    return new Promise((done, fail) => {
      waiting.push((why) => (why === undefined ? done(n * 10) : fail(new Error(why))));
    });
  };
  const answer = async (fail?: string): Promise<void> => {
    waiting.shift()?.(fail);
    await new Promise((done) => setTimeout(done));
  };
  return { asked, call, answer };
}

test('while one runs, only the newest of those that come waits; what is out of date is not shown', async () => {
  const { asked, call, answer } = heldCall();
  const run = new LatestRun(call);
  void run.run(1);
  void run.run(2);
  void run.run(3);
  expect(asked).toEqual([1]);
  expect(run.running).toBe(true);
  await answer();
  expect(run.answer).toBeNull();
  expect(asked).toEqual([1, 3]);
  await answer();
  expect([run.answer, run.running]).toEqual([30, false]);
});

test('an error is shown and the last good answer stays; the next one clears it', async () => {
  const { call, answer } = heldCall();
  const run = new LatestRun(call);
  void run.run(1);
  await answer();
  void run.run(2);
  await answer('too dark');
  expect([run.answer, run.error?.message, run.running]).toEqual([10, 'too dark', false]);
  void run.run(3);
  await answer();
  expect([run.answer, run.error]).toEqual([30, null]);
});
