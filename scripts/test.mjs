// npm test: format, types, lint, unit tests, server tests on a real MariaDB, then the screens in Chromium.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/app.mjs';
import { endLeftover, startDatabase } from './lib/database.mjs';
import { ensureChromium, ensureMariaDb, ensurePackages } from './lib/install.mjs';
import { freePort, ROOT, run, say, start } from './lib/run.mjs';

/**
 * @param {string} name
 * @param {() => Promise<void>} work
 */
const stage = async (name, work) => {
  say(`\n${name}`);
  await work();
};
const npx = (/** @type {string[]} */ ...args) => run('npx', ['--no-install', ...args]);

start(async () => {
  await ensurePackages();
  const chromium = await ensureChromium();
  await ensureMariaDb();
  await stage('Format', () => npx('prettier', '--check', '.'));
  await stage('Types', () => run('npm', ['run', 'check', '--silent']));
  await stage('Lint', () => npx('eslint', '.', '--max-warnings', '0'));
  await stage('Structure', () =>
    npx('depcruise', '--config', '.dependency-cruiser.mjs', 'core/src', 'cli/src', 'web/src'),
  );
  await stage('Unused code', () => npx('knip'));
  await stage('Core', () => run('npm', ['test', '-w', 'core', '--silent']));
  await stage('Command line', () => run('npm', ['test', '-w', 'cli', '--silent']));
  await ensureBuilt();
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
    await stage('Server', () => run('npm', ['test', '-w', 'web', '--silent'], { env }));
    await stage('Screens', () => run('npx', ['--no-install', 'playwright', 'test'], { env }));
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
  say('All checks passed.');
});
