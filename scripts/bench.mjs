// npm run bench [-- NAME …]: the sums beside a plain reference, and `screens` in Chromium beside a small build; JSON.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, loadDemo, startApp } from './lib/app.mjs';
import { endOnSignals } from './lib/closing.mjs';
import { startDatabase } from './lib/database.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { freePort, ROOT, run, start } from './lib/run.mjs';

/** The screens on an app with the demo, on a database of its own. */
async function screens() {
  const chromium = await ensureChromium();
  await ensureBuilt();
  const dir = join(ROOT, '.data/bench');
  const database = await startDatabase(dir);
  try {
    const app = await startApp({ databaseUrl: database.url('flarik'), port: await freePort() });
    try {
      await loadDemo(app.address);
      await run('node', ['--import', 'tsx', 'scripts/bench/screens.ts', app.address, chromium]);
    } finally {
      await app.stop();
    }
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}

endOnSignals();
start(async () => {
  await ensurePackages();
  const named = process.argv.slice(2);
  const sums = named.filter((name) => name !== 'screens');
  if (named.length === 0 || sums.length > 0)
    await run('node', ['--import', 'tsx', 'scripts/bench/core.ts', ...sums]);
  if (named.length === 0 || sums.length < named.length) await screens();
});
