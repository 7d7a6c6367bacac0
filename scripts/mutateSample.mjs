// npm run mutate:sample -- 25 7: Stryker on 25 stretches of 4 lines, drawn by seed 7 from all that `npm run mutate` changes.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOMS } from './lib/mutated.mjs';
import { ROOT, run, start } from './lib/run.mjs';

const LINES = 4;

/**
 * Mulberry32: equal draws for equal seeds.
 * @param {number} seed
 */
const drawFrom = (seed) => () => {
  seed = (seed + 0x6d2b79f5) | 0;
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
  return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
};

start(async () => {
  const [count = 25, seed = 1] = process.argv.slice(2).map(Number);
  const draw = drawFrom(seed);
  const files = ROOMS.flatMap((room) =>
    readdirSync(join(ROOT, 'core/src', room), { recursive: true, encoding: 'utf8' })
      .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && name !== 'library.ts')
      .map((name) => `core/src/${room}/${name}`),
  ).sort();
  const stretches = files.flatMap((file) => {
    const lines = readFileSync(join(ROOT, file), 'utf8').split('\n').length;
    return Array.from(
      { length: Math.ceil(lines / LINES) },
      (_, i) => `${file}:${i * LINES + 1}-${Math.min(lines, (i + 1) * LINES)}`,
    );
  });
  const drawn = Array.from({ length: Math.min(count, stretches.length) }, () =>
    stretches.splice(Math.floor(draw() * stretches.length), 1),
  ).flat();
  await run('node', ['scripts/mutate.mjs', ...drawn], { quiet: false });
});
