// Building and starting the app. Node built-ins only.
import { spawn } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { endWithUs } from './closing.mjs';
import { endProcess, pause, ROOT, run, say, Stop } from './run.mjs';

const BUILT = join(ROOT, 'web/build/index.js');
const SOURCES = [
  'core/src',
  'web/src',
  'web/static',
  'db/migrations',
  'web/vite.config.ts',
  'web/svelte.config.js',
  'package-lock.json',
];

/**
 * @param {string} path
 * @returns {number} the newest change below it, ms
 */
function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}

/** Builds the web app when a source is newer than the last build. */
export async function ensureBuilt() {
  const sources = Math.max(...SOURCES.map((path) => newest(join(ROOT, path))));
  if (existsSync(BUILT) && statSync(BUILT).mtimeMs > sources) return;
  say('Building the app …');
  await run('npm', ['run', 'build', '--silent'], { quiet: true });
}

/**
 * Starts the built app and waits until it answers.
 * @param {{ databaseUrl: string, port: number, logLevel?: string, env?: Record<string, string> }} options
 */
export async function startApp({ databaseUrl, port, logLevel = 'warn', env = {} }) {
  const address = `http://127.0.0.1:${String(port)}`;
  const child = spawn(process.execPath, [BUILT], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      HOST: '127.0.0.1',
      PORT: String(port),
      ORIGIN: address,
      BODY_SIZE_LIMIT: 'Infinity',
      SHUTDOWN_TIMEOUT: '5',
      // Longer than clients keep a connection they do not use: none is closed just as they use it again.
      KEEP_ALIVE_TIMEOUT: '65',
      LOG_LEVEL: logLevel,
      ...env,
    },
    detached: true,
  });
  /** How it ended: by a signal, or with a code. @type {Promise<string>} */
  const ended = new Promise((done) =>
    child.once('exit', (code, signal) => done(signal ?? `code ${String(code)}`)),
  );
  const stop = async () => {
    await endProcess(child.pid ?? 0);
    await ended;
  };
  void ended.then(endWithUs(stop));
  const until = Date.now() + 120_000;
  for (;;) {
    if (child.exitCode !== null || child.signalCode !== null || Date.now() > until)
      throw new Stop('The app did not start; its messages are above.');
    const up = await fetch(`${address}/health`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (up) break;
    await pause(50);
  }
  return {
    address,
    pid: child.pid ?? 0,
    ended,
    stop,
  };
}

/**
 * Loads the demo scenario through the same routes a user's import takes. What a killed load has brought in already is
 * not brought in again.
 * @param {string} address
 */
export async function loadDemo(address) {
  /** @type {unknown} */
  const listed = await (await fetch(`${address}/api/v1/builds`)).json();
  const there = JSON.stringify(listed);
  for (const { folder, route } of [
    { folder: 'packs', route: 'rule-packs' },
    { folder: 'builds', route: 'builds/import' },
  ]) {
    const dir = join(ROOT, 'demo', folder);
    for (const name of readdirSync(dir).toSorted().toReversed()) {
      const body = readFileSync(join(dir, name), 'utf8');
      const [, id = ''] = /"id": "([^"]+)"/.exec(body) ?? [];
      if (folder === 'builds' && there.includes(`"id":"${id}"`)) continue;
      const answer = await fetch(`${address}/api/v1/${route}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body,
      });
      if (!answer.ok) throw new Stop(`demo/${folder}/${name} was refused: ${await answer.text()}`);
    }
  }
  // Whoever asks for the list lets the findings be counted: they are, or nearly, when it is first looked at.
  await fetch(`${address}/api/v1/builds`);
}
