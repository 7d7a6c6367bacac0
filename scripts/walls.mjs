// Plants an import through every wall, beside the real configuration, and fails where lint lets one pass.
import { execFile } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import { FLOORS, STEPS, WEB_FLOORS } from '../.dependency-cruiser.mjs';
import { ROOT, say, start, Stop } from './lib/run.mjs';

/** What a file imports through a wall, and the rule that must name it. */
const BREACHES = [
  ...FLOORS.slice(0, -1).map((name, floor) => ({
    from: `core/src/${name}/planted.ts`,
    imports: `../${FLOORS[floor + 1] ?? ''}/target.ts`,
    rule: `nothing-above-${name}`,
  })),
  ...WEB_FLOORS.map((name, floor) => ({
    from: `web/src/lib/${name}/planted.ts`,
    imports: `$lib/${WEB_FLOORS[floor + 1] ?? STEPS[0] ?? ''}/target`,
    rule: `nothing-above-${name}-in-web`,
  })),
  ...STEPS.map((name, i) => ({
    from: `web/src/lib/${name}/planted.svelte`,
    imports: `$lib/${STEPS[(i + 1) % STEPS.length] ?? ''}/target`,
    rule: 'steps-apart',
  })),
  { from: 'web/src/lib/planted.ts', imports: './builds/target', rule: 'api-by-itself' },
  { from: 'web/src/lib/editor/plantedToo.ts', imports: '../server/target', rule: 'server-by-itself' },
  { from: 'core/src/words/plantedToo.ts', imports: '../../../cli/src/target.ts', rule: 'core-is-below' },
  { from: 'core/src/words/plantedNode.ts', imports: 'node:fs', rule: 'core-is-pure' },
  { from: 'cli/src/planted.ts', imports: '../../web/src/lib/target', rule: 'cli-on-core' },
  { from: 'core/src/rules/round.ts', imports: './roundToo.ts', rule: 'no-circle' },
];

/** What no file of the core may reach. */
const REACHED = [
  'Date.now()',
  'new Date()',
  'Math.random()',
  'performance.now()',
  "fetch('x')",
  'setTimeout(() => 1, 2)',
  'process.env',
  'crypto.randomUUID()',
  'window.name',
];

/**
 * What a tool prints, whether it finds anything or not.
 * @param {string} dir
 * @param {readonly string[]} args
 */
async function printed(dir, args) {
  try {
    const { stdout } = await promisify(execFile)('npx', ['--no-install', ...args], { cwd: dir });
    return stdout;
  } catch (error) {
    if (error instanceof Error && 'stdout' in error && typeof error.stdout === 'string') return error.stdout;
    throw error;
  }
}

/** @param {string} dir */
function plant(dir) {
  for (const name of [
    '.dependency-cruiser.mjs',
    '.oxlintrc.json',
    'tsconfig.base.json',
    'tsconfig.imports.json',
  ])
    cpSync(join(ROOT, name), join(dir, name));
  symlinkSync(join(ROOT, 'node_modules'), join(dir, 'node_modules'));
  const put = (/** @type {string} */ file, /** @type {string} */ text) => {
    mkdirSync(dirname(join(dir, file)), { recursive: true });
    writeFileSync(join(dir, file), text);
  };
  for (const name of FLOORS) put(`core/src/${name}/target.ts`, 'export const target = 1;\n');
  for (const name of [...WEB_FLOORS, ...STEPS, 'server'])
    put(`web/src/lib/${name}/target.ts`, 'export const target = 1;\n');
  put('core/src/rules/roundToo.ts', "export * as round from './round.ts';\n");
  put('web/src/lib/target.ts', 'export const target = 1;\n');
  put('cli/src/target.ts', 'export const target = 1;\n');
  for (const { from, imports } of BREACHES) {
    const code = `import * as through from '${imports}';\nexport const planted = through;\n`;
    put(from, from.endsWith('.svelte') ? `<script lang="ts" module>\n${code}</script>\n` : code);
  }
  for (const [i, text] of REACHED.entries())
    put(`core/src/words/reaches${String(i)}.ts`, `export const reached = (): unknown => ${text};\n`);
}

start(async () => {
  const dir = mkdtempSync(join(tmpdir(), 'walls-'));
  try {
    plant(dir);
    const cruised = await printed(dir, [
      'depcruise',
      '--config',
      '.dependency-cruiser.mjs',
      'core/src',
      'cli/src',
      'web/src',
      '--output-type',
      'err-long',
    ]);
    const passed = BREACHES.filter(
      ({ from, rule }) =>
        !cruised.split('\n').some((line) => line.includes(` ${rule}: `) && line.includes(`${from} `)),
    ).map(({ from, imports }) => `${from} imports ${imports}`);
    const linted = await printed(dir, [
      'oxlint',
      '--config',
      '.oxlintrc.json',
      '--format',
      'unix',
      'core/src/words',
    ]);
    for (const [i, text] of REACHED.entries())
      if (!new RegExp(`reaches${String(i)}\\.ts.*no-restricted-(globals|properties)`, 'u').test(linted))
        passed.push(`core/src reaches ${text}`);
    if (passed.length > 0) throw new Stop(`Lint lets pass:\n${passed.join('\n')}`);
    say(`${String(BREACHES.length + REACHED.length)} planted breaches, each named by lint.`);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
});
