// npm test: format, types, lint, unit tests, server tests on a real MariaDB, then the screens in Chromium.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/app.mjs';
import { endLeftover, startDatabase } from './lib/database.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { freePort, ROOT, run, say, start } from './lib/run.mjs';

/**
 * A stage of the checks: silent but for its name and its time, unless it fails.
 * @param {string} name
 * @param {string} program
 * @param {readonly string[]} args
 * @param {{ env?: NodeJS.ProcessEnv, quiet?: boolean }} [options]
 */
async function stage(name, program, args, { env = process.env, quiet = true } = {}) {
  const from = performance.now();
  await run(program, args, { env, quiet });
  say(`${name}: passed in ${((performance.now() - from) / 1000).toFixed(0)} s`);
}

const npx = (/** @type {string[]} */ ...args) => /** @type {const} */ (['npx', ['--no-install', ...args]]);
const npm = (/** @type {string[]} */ ...args) => /** @type {const} */ (['npm', ['run', '--silent', ...args]]);

/** What is read. */
async function readings() {
  await stage('Format', ...npx('prettier', '--check', '.'));
  await stage('Types', ...npm('check'));
  await stage('Lint', ...npx('oxlint'));
  await stage('Lint of components', ...npx('eslint', '.', '--max-warnings', '0'));
  await stage(
    'Structure',
    ...npx('depcruise', '--config', '.dependency-cruiser.mjs', 'core/src', 'cli/src', 'web/src'),
  );
  await stage('Unused code', ...npx('knip'));
}

/**
 * What is run, short of the screens.
 * @param {NodeJS.ProcessEnv} env
 */
async function runs(env) {
  await stage('Core', ...npm('test', '-w', 'core'));
  await stage('Command line', ...npm('test', '-w', 'cli'));
  await ensureBuilt();
  await stage('Server', ...npm('test', '-w', 'web'), { env });
}

start(async () => {
  await ensurePackages();
  const chromium = await ensureChromium();
  const dir = join(ROOT, '.data/test');
  await endLeftover(dir);
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase(dir);
  try {
    const env = {
      ...process.env,
      TEST_DATABASE_URL: database.url('flarik'),
      DATABASE_URL: database.url('flarik'),
      E2E_PORT: String(await freePort()),
      CHROMIUM: chromium,
    };
    // Side by side: reading keeps one core busy. Both come to their end before a failure is told.
    const [read, ran] = await Promise.allSettled([readings(), runs(env)]);
    for (const part of [read, ran]) if (part.status === 'rejected') throw part.reason;
    await stage('Screens', ...npx('playwright', 'test'), { env, quiet: false });
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
  say('All checks passed.');
});
