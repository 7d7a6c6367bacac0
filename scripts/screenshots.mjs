// npm run screenshots: one picture of each main view, from the demo data, into docs/screenshots/.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, loadDemo, startApp } from './lib/app.mjs';
import { endOnSignals } from './lib/closing.mjs';
import { startDatabase } from './lib/database.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { freePort, ROOT, run, start } from './lib/run.mjs';

endOnSignals();
start(async () => {
  await ensurePackages();
  const chromium = await ensureChromium();
  await ensureBuilt();
  const dir = join(ROOT, '.data/screenshots');
  const database = await startDatabase(dir);
  try {
    const app = await startApp({ databaseUrl: database.url('flarik'), port: await freePort() });
    try {
      await loadDemo(app.address);
      await run('node', ['--import', 'tsx', 'scripts/takeScreenshots.ts', app.address, chromium]);
    } finally {
      await app.stop();
    }
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
});
