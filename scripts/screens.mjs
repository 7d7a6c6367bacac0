// npm run screens [-- e2e/brief.spec.ts -g "a part of a name"]: the tests of screens, or some of them.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuilt } from './lib/app.mjs';
import { endOnSignals } from './lib/closing.mjs';
import { startDatabase } from './lib/database.mjs';
import { ensureChromium, ensurePackages } from './lib/install.mjs';
import { ROOT, start } from './lib/run.mjs';
import { testScreens } from './lib/screens.mjs';

endOnSignals();
start(async () => {
  await ensurePackages();
  const chromium = await ensureChromium();
  await ensureBuilt();
  const dir = join(ROOT, '.data/screens');
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase(dir);
  try {
    await testScreens(database.url('flarik'), chromium, process.argv.slice(2));
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
});
