// The screens, driven in Chromium on an app of their own with the demo loaded. Node built-ins only.
import { loadDemo, startApp } from './app.mjs';
import { freePort, run } from './run.mjs';

/**
 * Runs the tests of screens.
 * @param {string} databaseUrl - of a database that nobody else uses meanwhile
 * @param {string} chromium - its program
 * @param {readonly string[]} [args] - for Playwright: specs by file, or `-g` and a part of a test's name
 */
export async function testScreens(databaseUrl, chromium, args = []) {
  const app = await startApp({ databaseUrl, port: await freePort(), logLevel: 'error' });
  try {
    await loadDemo(app.address);
    await run('npx', ['--no-install', 'playwright', 'test', ...args], {
      env: { ...process.env, ADDRESS: app.address, CHROMIUM: chromium },
      interrupted: true,
    });
  } finally {
    await app.stop();
  }
}
