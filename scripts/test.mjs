// npm test: format, types, lint, unit tests, server tests on a real MariaDB, then the screens in Chromium.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/app.mjs';
import { endOnSignals } from './lib/closing.mjs';
import { endLeftover, startDatabase } from './lib/database.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { ROOT, run, say, start } from './lib/run.mjs';
import { testScreens } from './lib/screens.mjs';

/**
 * A stage of the checks, with its time.
 * @param {string} name
 * @param {() => Promise<void>} check
 */
async function timed(name, check) {
  const from = performance.now();
  await check();
  say(`${name}: passed in ${((performance.now() - from) / 1000).toFixed(0)} s`);
}

/**
 * A stage that is silent but for its name and its time, unless it fails.
 * @param {string} name
 * @param {string} program
 * @param {readonly string[]} args
 * @param {NodeJS.ProcessEnv} [env]
 */
const stage = (name, program, args, env = process.env) =>
  timed(name, () => run(program, args, { env, quiet: true }));

const npx = (/** @type {string[]} */ ...args) => /** @type {const} */ (['npx', ['--no-install', ...args]]);
const npm = (/** @type {string[]} */ ...args) => /** @type {const} */ (['npm', ['run', '--silent', ...args]]);

/**
 * What is read.
 * @param {Promise<void>} built - types are made anew by the build
 */
async function readings(built) {
  await stage('Format', ...npx('oxfmt', '--check', '.'));
  await built;
  await stage('Types', ...npm('check'));
  await stage('Lint', ...npx('oxlint'));
  await stage('Lint of components', ...npx('eslint', '.', '--max-warnings', '0'));
  await stage(
    'Structure',
    ...npx('depcruise', '--config', '.dependency-cruiser.mjs', 'core/src', 'cli/src', 'web/src'),
  );
  await stage('Walls', 'node', ['scripts/walls.mjs']);
  await stage('Words', 'node', ['scripts/words.mjs']);
  await stage('Unused code', ...npx('knip'));
}

/** What is worked out. */
async function works() {
  await stage('Core', ...npm('test', '-w', 'core'));
  await stage('Command line', ...npm('test', '-w', 'cli'));
}

/**
 * What is served. It waits more than it works, so that it costs the others little.
 * @param {Promise<void>} built
 * @param {NodeJS.ProcessEnv} env
 */
async function serves(built, env) {
  await built;
  await stage('Server', ...npm('test', '-w', 'web'), env);
}

endOnSignals();
start(async () => {
  await ensurePackages();
  const chromium = await ensureChromium();
  const dir = join(ROOT, '.data/test');
  await endLeftover(dir);
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase(dir);
  try {
    const env = { ...process.env, TEST_DATABASE_URL: database.url('flarik') };
    // Side by side; all come to their end before a failure is told.
    const built = ensureBuilt();
    const parts = await Promise.allSettled([readings(built), works(), serves(built, env)]);
    for (const part of parts) if (part.status === 'rejected') throw part.reason;
    await timed('Screens', () => testScreens(database.url('flarik'), chromium));
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
  say('All checks passed.');
});
