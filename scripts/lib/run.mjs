// Running other programs. Node built-ins only: this runs before any package is installed.
import { spawn } from 'node:child_process';
import { endsOnSignals, endWithUs, isTold } from './closing.mjs';
import { createServer } from 'node:net';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's root folder. */
export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '../..');

// Whoever read our output may have gone; what we run goes on, and is ended as it should be.
for (const output of [process.stdout, process.stderr]) output.on('error', () => undefined);

/** @param {string} text */
export const say = (text) => process.stdout.write(`${text}\n`);

/** What went wrong, in words for the person at the keyboard; no stack is shown. */
export class Stop extends Error {}

/**
 * Runs a program to its end, its output shown.
 * @param {string} program
 * @param {readonly string[]} args
 * @param {{ env?: NodeJS.ProcessEnv, cwd?: string, quiet?: boolean, interrupted?: boolean }} [options] - interrupted: is to be ended by SIGINT first
 * @returns {Promise<void>} rejects with Stop when it fails
 */
export function run(
  program,
  args,
  { env = process.env, cwd = ROOT, quiet = false, interrupted = false } = {},
) {
  return new Promise((done, failed) => {
    // In a group of its own it can be ended with all that it starts itself.
    const group = endsOnSignals();
    const child = spawn(program, args, {
      cwd,
      env,
      stdio: quiet ? ['ignore', 'pipe', 'pipe'] : 'inherit',
      detached: group,
    });
    const ended = new Promise((gone) => child.once('close', gone));
    const forget = group
      ? endWithUs(() => endGroup(child.pid ?? 0, ended, interrupted ? INTERRUPTED_FIRST : TOLD))
      : () => undefined;
    void ended.then(forget);
    let output = '';
    child.stdout?.on('data', (/** @type {Buffer} */ data) => (output += data.toString()));
    child.stderr?.on('data', (/** @type {Buffer} */ data) => (output += data.toString()));
    const what = `${program} ${args.join(' ')}`;
    child.once('error', (error) => failed(new Stop(`${what} could not be started: ${error.message}`)));
    child.once('exit', (code, signal) => {
      if (code === 0) done();
      else
        failed(
          new Stop(`${what} ended with ${signal ?? `code ${String(code)}`}.\n${output.slice(-2000)}`.trim()),
        );
    });
  });
}

/** How a group is told to end, and how long it is waited for after each, ms. */
const TOLD = /** @type {readonly (readonly [NodeJS.Signals, number])[]} */ ([
  ['SIGTERM', 5000],
  ['SIGKILL', 0],
]);
/** Playwright closes its browsers on an interrupt alone, once what they do has come to its end. */
const INTERRUPTED_FIRST = /** @type {typeof TOLD} */ ([['SIGINT', 20_000], ...TOLD]);

/**
 * @param {number} pid the leader's
 * @param {Promise<unknown>} ended
 * @param {typeof TOLD} how
 */
async function endGroup(pid, ended, how) {
  if (pid === 0) return;
  for (const [signal, patienceMs] of how) {
    try {
      process.kill(-pid, signal);
    } catch {
      // None of them is left.
      return;
    }
    await Promise.race([ended, pause(patienceMs)]);
  }
}

/** @returns {Promise<number>} a free port on loopback */
export function freePort() {
  return new Promise((done, failed) => {
    const server = createServer();
    server.once('error', failed);
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => {
        if (address === null || typeof address === 'string') failed(new Stop('no free port on 127.0.0.1'));
        else done(address.port);
      });
    });
  });
}

/** @param {number} ms */
export const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/**
 * Whether a process is alive.
 * @param {number} pid
 */
export function alive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

/**
 * Ends a process: politely, then not.
 * @param {number} pid
 * @param {number} patienceMs
 */
export async function endProcess(pid, patienceMs = 15_000) {
  const until = Date.now() + patienceMs;
  if (alive(pid)) process.kill(pid, 'SIGTERM');
  while (alive(pid) && Date.now() < until) await pause(50);
  if (alive(pid)) process.kill(pid, 'SIGKILL');
}

/**
 * Runs a script's main function; a Stop is printed as one clear message, what fails because we are told to end is not.
 * @param {() => Promise<void>} main
 */
export function start(main) {
  main().catch((/** @type {unknown} */ error) => {
    if (isTold()) return;
    process.exitCode = 1;
    if (error instanceof Stop) process.stderr.write(`\n${error.message}\n`);
    else process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  });
}
