// npm run demo: everything a bare machine needs, then the app with the demo scenario.
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join, resolve } from 'node:path';
import { ensureBuilt, loadDemo, startApp } from './lib/app.mjs';
import { endAll, endOnSignals, isEnding } from './lib/closing.mjs';
import { endLeftover, startDatabase } from './lib/database.mjs';
import { identityOf, isIdentity, isStill } from './lib/identity.mjs';
import { ensureMariaDb, ensurePackages } from './lib/install.mjs';
import { endProcess, freePort, ROOT, say, start, Stop } from './lib/run.mjs';

/** Where the demo keeps its data. */
const DIR = resolve(process.env.DEMO_DIR ?? join(ROOT, '.data/demo'));
/** Who runs the demo, from its first moment; then where it answers, and the app's process. */
const RUNNING = join(DIR, 'running.json');
const LOADED = join(DIR, 'loaded');
/** The port of the last start: a browser keeps work by address. */
const PORT_KEPT = join(DIR, 'port');
/** A database that dies more often than this within a minute is not started again. */
const MOST_DEATHS = 5;

/** @typedef {import('./lib/identity.mjs').Identity} Identity */
/** @typedef {{ demo: Identity, app?: Identity, address?: string }} Running */

/** @returns {Running | null} what a demo has written down; null when nothing usable stands there */
function readRunning() {
  try {
    /** @type {unknown} */
    const value = JSON.parse(readFileSync(RUNNING, 'utf8'));
    if (typeof value !== 'object' || value === null || !('demo' in value) || !isIdentity(value.demo))
      return null;
    const app = 'app' in value && isIdentity(value.app) ? { app: value.app } : {};
    const address = 'address' in value && typeof value.address === 'string' ? { address: value.address } : {};
    return { demo: value.demo, ...app, ...address };
  } catch {
    return null;
  }
}

/** @param {Omit<Running, 'demo'>} [more] */
function writeRunning(more = {}) {
  const me = identityOf(process.pid);
  if (me === null) return;
  // Whole or not at all: a demo may be killed while it writes.
  const fresh = `${RUNNING}.${String(process.pid)}`;
  writeFileSync(fresh, JSON.stringify({ demo: me, ...more }));
  renameSync(fresh, RUNNING);
}

/** Makes this the demo of the folder; one that runs is left to run, and leftovers of a killed one are ended. */
async function takeFolder() {
  try {
    mkdirSync(DIR, { recursive: true });
    writeFileSync(join(DIR, 'writable'), '');
    rmSync(join(DIR, 'writable'));
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new Stop(`The demo keeps its data in ${DIR}, where nothing can be written: ${why}`);
  }
  const lock = join(DIR, 'starting');
  try {
    writeFileSync(lock, String(process.pid), { flag: 'wx' });
  } catch {
    const other = identityOf(Number(readFileSync(lock, 'utf8')));
    if (other?.command.includes('demo.mjs') === true && other.pid !== process.pid)
      throw new Stop('The demo is being started already; give it a moment.');
    writeFileSync(lock, String(process.pid));
  }
  try {
    const other = readRunning();
    if (other !== null && isStill(other.demo))
      throw new Stop(
        other.address === undefined
          ? 'The demo is being started already; give it a moment.'
          : `The demo is running already, at ${other.address}`,
      );
    if (other?.app !== undefined && isStill(other.app)) await endProcess(other.app.pid);
    writeRunning();
  } finally {
    rmSync(lock, { force: true });
  }
}

/** The port of the last start; 0 when there is none. */
function portKept() {
  try {
    const kept = Number(readFileSync(PORT_KEPT, 'utf8'));
    return Number.isInteger(kept) && kept > 0 && kept <= 65_535 ? kept : 0;
  } catch {
    return 0;
  }
}

/**
 * Why a port cannot be used; null when it can.
 * @param {number} port
 * @returns {Promise<NodeJS.ErrnoException | null>}
 */
const portTrouble = (port) =>
  new Promise((done) => {
    const server = createServer();
    server.once('error', done);
    server.listen(port, '127.0.0.1', () => server.close(() => done(null)));
  });

/** The port asked for, else that of the last start, else a free one. */
async function choosePort() {
  const asked = process.env.PORT ?? '0';
  const port = Number(asked);
  if (!/^\d{1,5}$/.test(asked) || port > 65_535)
    throw new Stop(`PORT must be a number from 0 to 65535, not '${asked}'; 0 takes a free one.`);
  if (port === 0) {
    const kept = portKept();
    if (kept === 0) return freePort();
    if ((await portTrouble(kept)) === null) return kept;
    say(
      `Port ${String(kept)} of the last start is used by another program; the demo takes another one. Unsaved work in your browser stays at http://127.0.0.1:${String(kept)} and is offered again when the demo runs there.`,
    );
    return freePort();
  }
  const trouble = await portTrouble(port);
  if (trouble?.code === 'EADDRINUSE')
    throw new Stop(`Port ${asked} is taken by another program. Choose another with PORT, or leave it out.`);
  if (trouble !== null) throw new Stop(`Port ${asked} cannot be used: ${trouble.message}`);
  return port;
}

/**
 * Starts the database again when it dies under the app.
 * @param {Awaited<ReturnType<typeof startDatabase>>} database
 */
async function keepRunning(database) {
  const { port, password } = database;
  /** @type {number[]} */
  let deaths = [];
  for (let current = database; ;) {
    await current.ended;
    if (isEnding()) return;
    deaths = [...deaths.filter((at) => at > Date.now() - 60_000), Date.now()];
    if (deaths.length > MOST_DEATHS) {
      say('MariaDB dies again and again; its last words are in db.log beside the data. Stopping.');
      return;
    }
    say('MariaDB ended by itself; it is started again.');
    current = await startDatabase(DIR, { port, password });
  }
}

async function demo() {
  const reset = process.argv.includes('--reset');
  const unknown = process.argv.slice(2).find((arg) => arg !== '--reset');
  if (unknown !== undefined) throw new Stop(`npm run demo knows --reset only, not '${unknown}'.`);
  await takeFolder();
  const port = await choosePort();
  await ensurePackages();
  await ensureMariaDb();
  await ensureBuilt();
  if (reset) {
    await endLeftover(DIR);
    for (const part of ['db', 'db.new', 'run', 'my.cnf', 'db.log', 'loaded'])
      rmSync(join(DIR, part), { recursive: true, force: true });
  }
  const database = await startDatabase(DIR);
  const kept = keepRunning(database);
  const app = await startApp({ databaseUrl: database.url('flarik'), port });
  const running = identityOf(app.pid);
  writeRunning({ address: app.address, ...(running === null ? {} : { app: running }) });
  // One taken in its place is not kept: the demo goes back to where the browser's work is.
  if (portKept() === 0 || Number(process.env.PORT ?? 0) > 0) writeFileSync(PORT_KEPT, String(port));
  if (!existsSync(LOADED)) {
    await loadDemo(app.address);
    writeFileSync(LOADED, '');
  }
  say(`\nFlarik is running at ${app.address}\nCtrl+C stops it; the data stays in ${DIR}.`);
  const end = await Promise.race([app.ended, kept]);
  if (typeof end === 'string' && !isEnding())
    throw new Stop(
      `The app ended unexpectedly, with ${end}; its last messages are above. Start the demo again.`,
    );
}

/** Takes our own note away; another's is left. */
function forget() {
  if (readRunning()?.demo.pid === process.pid) rmSync(RUNNING, { force: true });
}

endOnSignals(() => {
  forget();
  say('Stopped.');
  process.exit(0);
});
start(async () => {
  try {
    await demo();
  } finally {
    if (!isEnding()) {
      await endAll();
      forget();
    }
  }
});
