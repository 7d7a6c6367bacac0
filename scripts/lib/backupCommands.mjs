// The commands of the built app that back up and restore. Node built-ins only.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT, start, Stop } from './run.mjs';

const BUILT = join(ROOT, 'web/build/threads/backup.js');

/**
 * Runs one of them with the arguments that this program was given.
 * @param {'backup' | 'restore'} name
 */
export const runBuilt = (name) =>
  start(async () => {
    if (!existsSync(BUILT)) throw new Stop('The app is not built yet: run npm run build first.');
    process.argv.splice(2, 0, name);
    await import(pathToFileURL(BUILT).href);
  });
