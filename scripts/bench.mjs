// npm run bench: the sums beside a plain reference, then the screens in Chromium beside a small build; JSON.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt, loadDemo, startApp } from './lib/app.mjs';
import { startDatabase } from './lib/database.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { freePort, ROOT, run, start } from './lib/run.mjs';

start(async () => {
  await ensurePackages();
  const chromium = await ensureChromium();
  await ensureBuilt();
  await run('node', ['--import', 'tsx', 'scripts/benchCore.ts']);
  const dir = join(ROOT, '.data/bench');
  const database = await startDatabase(dir);
  try {
    const app = await startApp({ databaseUrl: database.url('flarik'), port: await freePort() });
    try {
      await loadDemo(app.address);
      await run('node', ['--import', 'tsx', 'scripts/benchScreens.ts', app.address, chromium]);
    } finally {
      await app.stop();
    }
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
});
