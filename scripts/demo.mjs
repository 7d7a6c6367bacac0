// npm run demo: everything a bare machine needs, then the app with the demo scenario.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, loadDemo, startApp } from './lib/app.mjs';
import { endLeftover, startDatabase } from './lib/database.mjs';
import { ensureMariaDb, ensurePackages } from './lib/install.mjs';
import { alive, endProcess, freePort, ROOT, say, start, Stop } from './lib/run.mjs';

const DIR = join(ROOT, '.data/demo');
const RUNNING = join(DIR, 'running.json');
const LOADED = join(DIR, 'loaded');

/**
 * @typedef {{ pid: number, appPid: number, address: string }} Running
 * @param {unknown} value
 * @returns {value is Running}
 */
const isRunning = (value) =>
  typeof value === 'object' && value !== null && 'pid' in value && 'appPid' in value && 'address' in value;

/** What a demo that is still running wrote down; null when none runs. Leftovers of a killed one are ended. */
async function otherDemo() {
  if (!existsSync(RUNNING)) return null;
  /** @type {unknown} */
  const other = JSON.parse(readFileSync(RUNNING, 'utf8'));
  if (isRunning(other)) {
    if (alive(other.pid)) return other;
    if (alive(other.appPid)) await endProcess(other.appPid);
  }
  rmSync(RUNNING, { force: true });
  return null;
}

start(async () => {
  const reset = process.argv.includes('--reset');
  const unknown = process.argv.slice(2).find((arg) => arg !== '--reset');
  if (unknown !== undefined) throw new Stop(`npm run demo knows --reset only, not '${unknown}'.`);
  const other = await otherDemo();
  if (other !== null) throw new Stop(`The demo is running already, at ${other.address}`);
  await ensurePackages();
  await ensureMariaDb();
  await ensureBuilt();
  if (reset) {
    await endLeftover(DIR);
    rmSync(DIR, { recursive: true, force: true });
  }
  mkdirSync(DIR, { recursive: true });
  const database = await startDatabase(DIR);
  const app = await startApp({
    databaseUrl: database.url('flarik'),
    port: Number(process.env.PORT ?? (await freePort())),
  }).catch(async (/** @type {unknown} */ error) => {
    await database.stop();
    throw error;
  });
  writeFileSync(RUNNING, JSON.stringify({ pid: process.pid, appPid: app.pid, address: app.address }));
  if (!existsSync(LOADED)) {
    await loadDemo(app.address);
    writeFileSync(LOADED, '');
  }
  say(`\nFlarik is running at ${app.address}\nCtrl+C stops it; the data stays in .data/demo.`);
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await app.stop();
    await database.stop();
    rmSync(RUNNING, { force: true });
    say('Stopped.');
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());
  await app.ended;
  await stop();
});
