import { spawn, type ChildProcess } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { z } from 'zod';
import { alive, freePort, pause } from '../../../../scripts/lib/run.mjs';

const ROOT = resolve(import.meta.dirname, '../../../..');
let dir = '';
let started: {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
}[] = [];

beforeEach(() => {
  // A blank in the path is nothing out of the way.
  dir = mkdtempSync(join(tmpdir(), 'flarik demo-'));
  started = [];
});
afterEach(async () => {
  for (const { child } of started) child.kill('SIGTERM');
  await Promise.all(started.map(({ ended }) => ended));
  rmSync(dir, { recursive: true, force: true });
});

function demo(env: Readonly<Record<string, string>> = {}) {
  const child = spawn(process.execPath, ['scripts/demo.mjs'], {
    cwd: ROOT,
    env: { ...process.env, PORT: '0', DEMO_DIR: dir, ...env },
  });
  let text = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (data: Buffer) => (text += data.toString()));
  const run = {
    child,
    said: () => text,
    ended: new Promise<number | null>((done) => child.once('exit', done)),
  };
  started.push(run);
  return run;
}

async function running(run: ReturnType<typeof demo>): Promise<string> {
  for (;;) {
    const [, address] = /running at (\S+)/.exec(run.said()) ?? [];
    if (address !== undefined) return address;
    if (run.child.exitCode !== null) throw new Error(`the demo ended: ${run.said()}`);
    await pause(50);
  }
}

/** Processes whose command names this demo's folder. */
const ours = (): number[] =>
  readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(dir);
      } catch {
        return false;
      }
    })
    .map(Number);
const names = async (address: string): Promise<string[]> =>
  z
    .array(z.looseObject({ name: z.string() }))
    .parse(await (await fetch(`${address}/api/v1/builds`)).json())
    .map((b) => b.name);

describe('the demo', () => {
  test('told to stop at any moment it leaves nothing running', async () => {
    for (const afterMs of [0, 150, 400, 900, 1800, 3200]) {
      const run = demo();
      await pause(afterMs);
      run.child.kill(afterMs % 300 === 0 ? 'SIGINT' : 'SIGTERM');
      await run.ended;
      expect(ours(), `told after ${afterMs} ms: ${run.said()}`).toEqual([]);
      expect(existsSync(join(dir, 'starting')), `after ${afterMs} ms`).toBe(false);
    }
  });

  test('killed while it loads, it goes on; two at once are told apart; a dead database is started again', async () => {
    const first = demo();
    for (;;) {
      const [, port] = /"address":"http:\/\/127\.0\.0\.1:(\d+)"/.exec(note()) ?? [];
      if (port !== undefined && (await names(`http://127.0.0.1:${port}`)).length > 2) break;
      await pause(20);
    }
    first.child.kill('SIGKILL');
    await first.ended;
    // A kill may have cut its note short, too.
    const again = demo();
    const address = await running(again);
    const all = await names(address);
    expect(all).toHaveLength(9);
    expect(new Set(all).size).toBe(9);

    const second = demo();
    expect(await second.ended).toBe(1);
    expect(second.said().trim()).toBe(`The demo is running already, at ${address}`);

    const [database] = ours();
    if (database === undefined) throw new Error('there is a database');
    process.kill(database, 'SIGKILL');
    for (;;) {
      const answer = await fetch(`${address}/api/v1/builds`);
      if (answer.ok && again.said().includes('started again')) break;
      await pause(100);
    }
    expect(await names(address)).toHaveLength(9);
    again.child.kill('SIGTERM');
    expect(await again.ended).toBe(0);
    expect(ours()).toEqual([]);

    // Work kept in a browser belongs to an address: the demo comes back at it, and says so when it cannot.
    const back = demo();
    expect(await running(back)).toBe(address);
    back.child.kill('SIGTERM');
    await back.ended;
    const port = Number(new URL(address).port);
    const holder = createServer().listen(port, '127.0.0.1');
    const elsewhere = demo();
    expect(await running(elsewhere)).not.toBe(address);
    expect(elsewhere.said()).toContain(`Port ${port} of the last start is used by another program`);
    elsewhere.child.kill('SIGTERM');
    await elsewhere.ended;
    holder.close();
    expect(readFileSync(join(dir, 'port'), 'utf8')).toBe(String(port));
  });

  test('that the app died by itself is told, with how; whoever read the output may have gone', async () => {
    const run = demo();
    await running(run);
    const { app } = Note.parse(JSON.parse(note()));
    process.kill(app.pid, 'SIGKILL');
    expect(await run.ended).toBe(1);
    expect(run.said().trim()).toMatch(/The app ended unexpectedly, with SIGKILL; .* Start the demo again\.$/);
    expect(ours()).toEqual([]);

    const unread = demo();
    unread.child.stdout.destroy();
    unread.child.stderr.destroy();
    while (!note().includes('"address"')) await pause(50);
    // It is past its last word.
    await pause(3000);
    expect(unread.child.exitCode).toBeNull();
    unread.child.kill('SIGTERM');
    expect(await unread.ended).toBe(0);
    expect(ours()).toEqual([]);
  });

  test('what a killed one left behind is read with care: no stranger is ended', async () => {
    const stranger = spawn('sleep', ['300']);
    const pid = stranger.pid ?? 0;
    mkdirSync(join(dir, 'run'), { recursive: true });
    writeFileSync(join(dir, 'run/db.pid'), String(pid));
    const reused = { pid, startedAt: '1', command: 'node scripts/demo.mjs' };
    for (const left of [JSON.stringify({ demo: reused, app: reused }), '{"demo":{"pid":', '', '[]']) {
      writeFileSync(join(dir, 'running.json'), left);
      writeFileSync(join(dir, 'starting'), String(pid));
      const run = demo();
      await pause(1200);
      run.child.kill('SIGTERM');
      await run.ended;
      expect(alive(pid), left).toBe(true);
      expect(run.said()).not.toMatch(/already|Error/);
    }
    stranger.kill();
  });

  test.each([
    ['a word for a port', { PORT: 'eighty' }, /^PORT must be a number from 0 to 65535, not 'eighty'/],
    ['a port beyond all', { PORT: '70000' }, /^PORT must be a number from 0 to 65535/],
  ])('%s is refused in one sentence', async (_, env, sentence) => {
    const run = demo(env);
    expect(await run.ended).toBe(1);
    expect(run.said().trim()).toMatch(sentence);
    expect(run.said().trim().split('\n')).toHaveLength(1);
  });

  test('a port that another holds, and a folder that cannot be, are told plainly', async () => {
    const port = await freePort();
    const holder = createServer().listen(port, '127.0.0.1');
    const held = demo({ PORT: String(port) });
    expect(await held.ended).toBe(1);
    expect(held.said().trim()).toBe(
      `Port ${port} is taken by another program. Choose another with PORT, or leave it out.`,
    );
    holder.close();
    writeFileSync(join(dir, 'file'), '');
    const nowhere = demo({ DEMO_DIR: join(dir, 'file/demo') });
    expect(await nowhere.ended).toBe(1);
    expect(nowhere.said().trim()).toMatch(/^The demo keeps its data in .*, where nothing can be written: /);
  });
});

const Note = z.looseObject({ app: z.looseObject({ pid: z.int() }) });

/** What the demo has written down of itself. */
const note = (): string => {
  try {
    return readFileSync(join(dir, 'running.json'), 'utf8');
  } catch {
    return '';
  }
};
