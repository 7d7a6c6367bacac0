// npm run soak -- 5: five times the tests of core that draw their examples by chance, each time with other examples.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, run, say, start, Stop } from './lib/run.mjs';

const CORE = join(ROOT, 'core');

start(async () => {
  const [times = 1] = process.argv.slice(2).map(Number);
  const drawing = readdirSync(join(CORE, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.test.ts'))
    .filter((name) => readFileSync(join(CORE, 'src', name), 'utf8').includes("from 'fast-check'"));
  /** @type {number[]} */
  const failed = [];
  for (let i = 0; i < times; i += 1) {
    const seed = Math.floor(Math.random() * 2 ** 31);
    const env = { ...process.env, SEED: String(seed) };
    let went = 'passed';
    try {
      await run('npx', ['--no-install', 'vitest', 'run', ...drawing], { cwd: CORE, env, quiet: true });
    } catch (error) {
      if (!(error instanceof Stop)) throw error;
      failed.push(seed);
      went = error.message;
    }
    say(`SEED=${seed}: ${went}`);
  }
  if (failed.length > 0) throw new Stop(`failed with SEED=${failed.join(', ')}`);
});
