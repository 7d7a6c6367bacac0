import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { defaultSpec } from '@flarik/core/vehicle/spec';
import type { Digest } from './digest';
import { Digesting, type Digested } from './digesting';

const none: Digest['findings'] = { blocks: 0, warns: 0, advises: 0, notes: 0 };
let dir = '';
let file = '';

/** A thread that counts what its document says, or never comes to an end. */
const THREAD = `export default async (document) => {
  const { wait, blocks } = JSON.parse(document);
  if (wait === 'for ever') for (;;);
  await new Promise((done) => setTimeout(done, wait));
  return { findings: { blocks, warns: 0, advises: 0, notes: 0 }, picture: { vehicle: ${JSON.stringify(defaultSpec('mid-suv'))}, lenses: [] } };
};`;

beforeAll(() => {
  dir = mkdtempSync(join(tmpdir(), 'flarik-digesting-'));
  file = join(dir, 'thread.mjs');
  writeFileSync(file, THREAD);
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

function recorded({ longestMs = 60_000, aloneMs = 0, againMs = 0 } = {}) {
  const kept: [string, number, Digest['findings'] | null][] = [];
  const digesting = new Digesting(
    ({ id, version }, digest) => {
      kept.push([id, version, digest?.findings ?? null]);
      return Promise.resolve();
    },
    { file, longestMs, quietMs: 0, aloneMs, againMs },
  );
  return { kept, digesting };
}
const asked = (id: string, version: number, what: object): Digested => ({
  id,
  version,
  document: JSON.stringify(what),
});

test('of each build the latest only, one after the other', async () => {
  const { kept, digesting } = recorded();
  digesting.ask(asked('a', 1, { wait: 1500, blocks: 1 }));
  await new Promise((done) => setTimeout(done, 300));
  for (const version of [2, 3, 4]) digesting.ask(asked('a', version, { wait: 0, blocks: version }));
  digesting.ask(asked('b', 1, { wait: 0, blocks: 9 }));
  await digesting.idle();
  expect(kept).toEqual([
    ['a', 1, { ...none, blocks: 1 }],
    ['a', 4, { ...none, blocks: 4 }],
    ['b', 1, { ...none, blocks: 9 }],
  ]);
  await digesting.end();
});

test('what is the same is digested once; what differs is digested anew', async () => {
  const counting = join(dir, 'counting.mjs');
  writeFileSync(
    counting,
    THREAD.replace('export default', 'let runs = 0; export default').replace(
      'blocks, warns',
      'blocks: ++runs, warns',
    ),
  );
  const kept: [string, number | undefined][] = [];
  const digesting = new Digesting(
    ({ id }, digest) => Promise.resolve(void kept.push([id, digest?.findings.blocks])),
    { file: counting, quietMs: 0, aloneMs: 0, againMs: 0 },
  );
  const same = { wait: 0, text: 'like the other' };
  for (const [id, what] of [
    ['a', same],
    ['copy of a', { ...same, id: 'copy of a', name: 'A copy', notes: 'Copied' }],
    ['b', { wait: 0, text: 'unlike' }],
  ] as const) {
    digesting.ask(asked(id, 1, what));
    await digesting.idle();
  }
  expect(kept).toEqual([
    ['a', 1],
    ['copy of a', 1],
    ['b', 2],
  ]);
  await digesting.end();
});

test('a build that is worked on waits its time, and keeps no other from its turn', async () => {
  const { kept, digesting } = recorded({ againMs: 1500 });
  digesting.ask(asked('a', 1, { wait: 0, blocks: 1 }));
  await digesting.idle();
  const from = performance.now();
  digesting.ask(asked('a', 2, { wait: 0, blocks: 2 }));
  digesting.ask(asked('b', 1, { wait: 0, blocks: 3 }));
  digesting.ask(asked('a', 3, { wait: 0, blocks: 4 }));
  await digesting.idle();
  expect(performance.now() - from).toBeGreaterThan(1000);
  expect(kept.map(([id, version]) => [id, version])).toEqual([
    ['a', 1],
    ['b', 1],
    ['a', 3],
  ]);
  await digesting.end();
});

test('what nobody wants to see waits until somebody looks', async () => {
  const { kept, digesting } = recorded({ aloneMs: 3_600_000 });
  digesting.ask(asked('a', 1, { wait: 0, blocks: 1 }));
  await new Promise((done) => setTimeout(done, 500));
  expect(kept).toEqual([]);
  digesting.hurry();
  await digesting.idle();
  expect(kept.map(([id]) => id)).toEqual(['a']);
  await digesting.end();
});

test('or until it is left alone', async () => {
  const { kept, digesting } = recorded({ aloneMs: 1000 });
  const from = performance.now();
  digesting.ask(asked('a', 1, { wait: 0, blocks: 1 }));
  await digesting.idle();
  expect(kept.map(([id]) => id)).toEqual(['a']);
  expect(performance.now() - from).toBeGreaterThan(900);
  await digesting.end();
});

test('a build that is deleted is not digested any more', async () => {
  const { kept, digesting } = recorded();
  digesting.ask(asked('a', 1, { wait: 600 }));
  await new Promise((done) => setTimeout(done, 300));
  digesting.ask(asked('b', 1, { wait: 0 }));
  digesting.drop('b');
  await digesting.idle();
  expect(kept.map(([id]) => id)).toEqual(['a']);
  await digesting.end();
});

test('one that takes too long is stopped and said not to be counted; the next goes on', async () => {
  const { kept, digesting } = recorded({ longestMs: 500 });
  digesting.ask(asked('slow', 1, { wait: 'for ever' }));
  digesting.ask(asked('quick', 1, { wait: 0, blocks: 2 }));
  await digesting.idle();
  expect(kept).toEqual([
    ['slow', 1, null],
    ['quick', 1, { ...none, blocks: 2 }],
  ]);
  await digesting.end();
});

test('at the end nothing is waited for', async () => {
  const { kept, digesting } = recorded();
  digesting.ask(asked('slow', 1, { wait: 'for ever' }));
  await new Promise((done) => setTimeout(done, 300));
  await digesting.end();
  await digesting.idle();
  expect(kept).toEqual([]);
  digesting.ask(asked('late', 1, { wait: 0 }));
  await digesting.idle();
  expect(kept).toEqual([]);
});

test('without the thread’s code nothing is counted, and nothing fails', async () => {
  const kept: string[] = [];
  const digesting = new Digesting(({ id }) => Promise.resolve(void kept.push(id)), {
    file: join(dir, 'gone.js'),
  });
  digesting.ask(asked('a', 1, { wait: 0 }));
  await digesting.idle();
  expect(kept).toEqual([]);
});
