// npm run mutate -- timing coverage: Stryker on those rooms of core, or on files named, one room after the other.
import { ROOT, run, start, Stop } from './lib/run.mjs';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOMS } from './lib/mutated.mjs';

/** @param {string} of - a room, or a file with or without lines, as core/src/rules/causes.ts:10-40 */
function partOf(of) {
  if (ROOMS.includes(of)) return { room: of, mutate: `core/src/${of}/**/*.ts` };
  const [, room = ''] = /^core\/src\/(\w+)\/.+\.ts/.exec(of) ?? [];
  if (!ROOMS.includes(room) || !existsSync(join(ROOT, of.replace(/:.*$/, ''))))
    throw new Stop(`'${of}' is neither one of ${ROOMS.join(', ')} nor a file in one of them`);
  return { room, mutate: of };
}

start(async () => {
  const named = process.argv.slice(2);
  const parts = (named.length === 0 ? ROOMS : named).map(partOf);
  for (const room of ROOMS) {
    const own = parts.filter((part) => part.room === room).map(({ mutate }) => mutate);
    if (own.length === 0) continue;
    const mutate = [...own, '!core/src/**/*.test.ts', '!core/src/timing/library.ts'].join(',');
    await run('npx', ['--no-install', 'stryker', 'run', '--mutate', mutate], {
      env: { ...process.env, MUTATED_ROOM: room },
    });
  }
});
