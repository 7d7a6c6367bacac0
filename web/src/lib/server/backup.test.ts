import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import type { Pool } from 'mysql2/promise';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { z } from 'zod';
import { insertBuild, saveBuild } from './buildRepo';
import { fileBuild } from './filed';
import { many, openPool } from './db';
import { migrate } from './migrate';
import { findRevision, nameRevision } from './revisionRepo';
import { demoBuild, freshDatabase } from './support.testing';

const ROOT = resolve(import.meta.dirname, '../../../..');
const TABLES = [
  'build',
  'build_revision',
  'build_gone',
  'rule_pack',
  'rule_pack_version',
  'schema_migration',
];
let [dir, from, into] = ['', '', ''];
let source: Pool;

beforeAll(async () => {
  dir = mkdtempSync(join(tmpdir(), 'flarik-backup-'));
  [from, into] = [await freshDatabase('backup_from'), await freshDatabase('backup_into')];
  source = openPool(from);
  await migrate(source);
  for (const name of ['ks-12', 'ks-13'] as const) {
    const build = await fileBuild({ ...demoBuild(name), notes: 'Ünïcode ▲ "quoted" \\ \n\0 end' });
    await insertBuild(source, build, { saveId: crypto.randomUUID(), changed: 'New' });
    await saveBuild(source, build, 1, { saveId: crypto.randomUUID(), changed: '✓ later' });
    await nameRevision(source, build.id, 1, 'As delivered');
  }
});
afterAll(async () => {
  await source.end();
  rmSync(dir, { recursive: true, force: true });
});

function run(script: 'backup' | 'restore', url: string, ...args: string[]) {
  const child = spawn(process.execPath, [`scripts/${script}.mjs`, ...args], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: url },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (data: Buffer) => (said += data.toString()));
  return new Promise<{ code: number | null; said: string }>((done) =>
    child.once('close', (code) => done({ code, said: said.trim() })),
  );
}
const rows = async (pool: Pool) =>
  Promise.all(TABLES.map((table) => many(pool, z.unknown(), `SELECT * FROM ${table} ORDER BY 1, 2`)));

test('what is backed up and restored is equal, row by row', async () => {
  const file = join(dir, 'all.sql.gz');
  expect(await run('backup', from, file)).toMatchObject({ code: 0 });
  expect((await run('backup', from, file)).said).toMatch(/is there already/);
  const restored = await run('restore', into, file);
  expect(restored.code).toBe(0);
  expect(restored.said).toMatch(/2 builds/);
  const target = openPool(into);
  try {
    expect(await rows(target)).toEqual(await rows(source));
    await migrate(target);
    const [first] = await many(target, z.strictObject({ id: z.string() }), 'SELECT id FROM build LIMIT 1');
    expect(await findRevision(target, first?.id ?? '', 1)).toEqual(
      await findRevision(source, first?.id ?? '', 1),
    );
  } finally {
    await target.end();
  }
});

test('a database that holds builds is replaced only when that is said; a broken file changes nothing', async () => {
  const file = join(dir, 'again.sql.gz');
  await run('backup', from, file);
  const before = await rows(source);
  const refused = await run('restore', from, file);
  expect(refused.code).toBe(1);
  expect(refused.said).toMatch(/holds 2 builds\. Add --replace/);
  const bytes = readFileSync(file);
  for (const [name, part] of [
    ['short.gz', bytes.subarray(0, bytes.length / 2)],
    ['text.gz', Buffer.from('no backup')],
  ] as const) {
    writeFileSync(join(dir, name), part);
    const broken = await run('restore', from, join(dir, name), '--replace');
    expect(broken.code).toBe(1);
    expect(broken.said).toMatch(/Nothing was changed\.$/);
    expect(broken.said.split('\n')).toHaveLength(1);
  }
  expect(await rows(source)).toEqual(before);
  expect(await run('restore', from, file, '--replace')).toMatchObject({ code: 0 });
  expect(await rows(source)).toEqual(before);
  expect((await run('restore', from, join(dir, 'none.gz'))).said).toMatch(/^There is no file/);
  expect((await run('backup', 'nowhere')).said).toMatch(/^Say where the backup goes/);
});
