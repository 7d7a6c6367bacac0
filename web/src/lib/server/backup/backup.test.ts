import { createHash } from 'node:crypto';
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Pool } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { z } from 'zod';
import { deleteBuild, findBuild, insertBuild, saveBuild } from '../buildRepo';
import { change, many, openPool } from '../db';
import { fileBuild } from '../filed';
import { migrate, MIGRATIONS } from '../migrate';
import { findRevision, nameRevision } from '../revisionRepo';
import { putRulePack } from '../rulePackRepo';
import { demoBuild, demoPack, freshDatabase } from '../support.testing';
import { Head, type Foot } from './format';
import { restore } from './restore';
import { sign } from './secret';

const ROOT = resolve(import.meta.dirname, '../../../../..');
const SECRET = 'only the tests know this secret of the server';
const NAMES = ['ks-12', 'ks-13'] as const;
/** What a hostile or unlucky text may look like. */
const ODD = `Ünïcode ▲ "quoted" \\ \n\0 '); DROP TABLE build; -- \\! touch /tmp/x`;

let [dir, file] = ['', ''];
let ids: string[] = [];

beforeAll(async () => {
  dir = mkdtempSync(join(tmpdir(), 'flarik-backup-'));
  file = join(dir, 'all.backup');
  const from = await freshDatabase('backup_from');
  const source = openPool(from);
  await migrate(source);
  ids = await fill(source);
  await source.end();
  expect(await run('backup', from, file)).toMatchObject({ code: 0 });
});
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** Two builds of two revisions each, one named; one build that was deleted; a rule pack. @returns the builds' ids */
async function fill(pool: Pool): Promise<string[]> {
  await putRulePack(pool, demoPack());
  const made: string[] = [];
  for (const name of NAMES) {
    const build = await fileBuild({ ...demoBuild(name), notes: ODD });
    await insertBuild(pool, build, { saveId: crypto.randomUUID(), changed: 'New' });
    await saveBuild(pool, build, 1, { saveId: crypto.randomUUID(), changed: '✓ later' });
    await nameRevision(pool, build.id, 1, 'As delivered');
    made.push(build.id);
  }
  const gone = await fileBuild(demoBuild('ks-12'));
  await insertBuild(pool, gone, { saveId: crypto.randomUUID(), changed: 'New' });
  await deleteBuild(pool, gone.id);
  return made;
}

function start(script: 'backup' | 'restore', url: string, ...args: string[]) {
  const child = spawn(process.execPath, [`scripts/${script}.mjs`, ...args], {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: url, FLARIK_SECRET: SECRET },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (data: Buffer) => (said += data.toString()));
  const ended = new Promise<{ code: number | null; said: string }>((done) =>
    child.once('close', (code) => done({ code, said: said.trim() })),
  );
  return { child, ended };
}
const run = (...of: Parameters<typeof start>) => start(...of).ended;

const Named = z.strictObject({ name: z.string() });

/** Every row of every table but those of the server's own business, by a connection that is closed again. */
async function rows(url: string): Promise<Record<string, unknown[]>> {
  const pool = openPool(url);
  try {
    const tables = await many(
      pool,
      Named,
      'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() ORDER BY 1',
    );
    const found: Record<string, unknown[]> = {};
    for (const { name } of tables)
      if (name !== 'lease' && name !== 'schema_migration')
        found[name] = await many(pool, z.unknown(), `SELECT * FROM ${name} ORDER BY 1, 2`);
    return found;
  } finally {
    await pool.end();
  }
}

async function using<T>(url: string, work: (pool: Pool) => Promise<T>): Promise<T> {
  const pool = openPool(url);
  try {
    return await work(pool);
  } finally {
    await pool.end();
  }
}

/** A database that holds other work than the backup. */
async function another(name: string): Promise<string> {
  const url = await freshDatabase(name);
  await using(url, async (pool) => {
    await migrate(pool);
    await fill(pool);
  });
  return url;
}

/** A file as the backup, its lines changed by hand and its seals made anew. */
function forge(name: string, changed: (lines: unknown[]) => unknown[], secret = SECRET): string {
  const lines = gunzipSync(readFileSync(file)).toString('utf8').trim().split('\n');
  const body = changed(lines.slice(0, -1).map((line): unknown => JSON.parse(line)));
  const text = body.map((line) => `${JSON.stringify(line)}\n`).join('');
  const counted = Head.safeParse(body[0]).data?.tables.map(
    (_, i) => body.filter((line) => Array.isArray(line) && line[0] === i).length,
  );
  const sha256 = createHash('sha256').update(text).digest('hex');
  const foot: Foot = { rows: counted ?? [], sha256, signature: sign(sha256, secret) };
  const path = join(dir, name);
  writeFileSync(path, gzipSync(`${text}${JSON.stringify(foot)}\n`));
  return path;
}
const headOf = (lines: unknown[]) => Head.parse(lines[0]);
const Row = z.tuple([z.int(), z.array(z.unknown())]);
/** The lines with a table's rows changed. */
const inTable = (
  lines: unknown[],
  table: string,
  changed: (cells: unknown[], columns: string[]) => unknown[],
) => {
  const { tables } = headOf(lines);
  const i = tables.findIndex(({ name }) => name === table);
  return lines.map((line) => {
    const row = Row.safeParse(line);
    return row.success && row.data[0] === i ? [i, changed(row.data[1], tables[i]?.columns ?? [])] : line;
  });
};
const withCell = (column: string, value: unknown) => (cells: unknown[], columns: string[]) =>
  cells.map((cell, i) => (columns[i] === column ? value : cell));

test('what is backed up and restored is equal, row by row', async () => {
  const from = await another('backup_equal');
  const into = await freshDatabase('backup_into');
  const own = join(dir, 'own.backup');
  const made = await run('backup', from, own);
  expect(made.said).toMatch(/with 2 builds, 4 revisions and 1 rule packs/);
  expect((await run('backup', from, own)).said).toMatch(/exists already/);
  expect(existsSync(`${own}.part`)).toBe(false);
  const restored = await run('restore', into, own);
  expect(restored.said).toBe('Restored and read: 2 builds, 4 revisions, 1 rule packs. Start the app again.');
  expect(restored.code).toBe(0);
  const found = await rows(into);
  expect(found).toEqual(await rows(from));
  expect(Object.values(found).filter((table) => table.length > 0).length).toBeGreaterThanOrEqual(5);
  // Whatever the next start does finds it right.
  await using(into, (pool) => migrate(pool));
  expect(await rows(into)).toEqual(found);
});

test('a backup is made while the database is saved to, and holds one moment of it', async () => {
  const url = await another('backup_busy');
  await using(url, async (pool) => {
    const build = await fileBuild(demoBuild('ks-12'));
    await insertBuild(pool, build, { saveId: crypto.randomUUID(), changed: 'New' });
    let version = 1;
    const until = new AbortController();
    const saving = (async () => {
      while (!until.signal.aborted) {
        await saveBuild(pool, build, version, { saveId: crypto.randomUUID(), changed: 'More' });
        version++;
      }
    })();
    const made = await run('backup', url, join(dir, 'busy.backup'));
    until.abort();
    await saving;
    expect(made.code).toBe(0);
    expect(version).toBeGreaterThan(3);
    const into = await freshDatabase('backup_busy_into');
    // A build without its last revision would be refused.
    expect(await run('restore', into, join(dir, 'busy.backup'))).toMatchObject({ code: 0 });
  });
});

test('builds are replaced only when that is said; what was replaced comes back by --undo, and goes after a day', async () => {
  const url = await another('backup_replace');
  const before = await rows(url);
  const refused = await run('restore', url, file);
  expect(refused).toMatchObject({ code: 1 });
  expect(refused.said).toMatch(/contains 2 builds\. Add --replace .* Nothing was changed\.$/);
  expect(await rows(url)).toEqual(before);

  const done = await run('restore', url, file, '--replace');
  expect(done.code).toBe(0);
  const [, aside = ''] = /in the database '(\w+)'; npm run restore -- --undo/.exec(done.said) ?? [];
  expect((await rows(url.replace(/\w+$/, aside))).build).toEqual(before.build);
  await using(url, async (pool) => {
    for (const id of ids) expect((await findBuild(pool, id))?.build.notes).toBe(ODD);
  });

  const undone = await run('restore', url, '--undo');
  expect(undone.said).toMatch(/^The earlier data are back: 2 builds\. The data they replaced are now in/);
  const documents = (of: Record<string, unknown[]>) =>
    z
      .array(z.looseObject({ document: z.string() }))
      .parse(of.build)
      .map(({ document }) => document);
  const back = await rows(url);
  expect(documents(back)).toEqual(documents(before));
  expect(back.build_revision).toEqual(expect.arrayContaining(before.build_revision ?? []));
  expect(back.rule_pack).toEqual(before.rule_pack);

  // What lies aside for longer goes with the next restore; what was replaced today does not.
  await using(url, async (pool) => {
    const schema = new URL(url).pathname.slice(1);
    const old = `${schema}_replaced_20200101t000000000`;
    await change(pool, `CREATE DATABASE IF NOT EXISTS ${old}`);
  });
  const asides = () =>
    using(url, (pool) =>
      many(
        pool,
        Named,
        `SELECT schema_name AS name FROM information_schema.schemata WHERE schema_name LIKE '%replace\\_replaced\\_%'`,
      ),
    );
  // A restore that fails takes none away.
  expect(await run('restore', url, dir, '--replace')).toMatchObject({ code: 1 });
  expect((await asides()).filter(({ name }) => name.includes('2020'))).toHaveLength(1);
  expect(await run('restore', url, file, '--replace')).toMatchObject({ code: 0 });
  const kept = await asides();
  expect(kept.map(({ name }) => name)).not.toContainEqual(expect.stringContaining('2020'));
  expect(kept).toHaveLength(2);
});

test('without anything replaced there is nothing to undo', async () => {
  const url = await freshDatabase('backup_no_undo');
  expect(await run('restore', url, file)).toMatchObject({ code: 0 });
  const undone = await run('restore', url, '--undo');
  expect(undone).toEqual({
    code: 1,
    said: "No replaced database of 'flarik_backup_no_undo' is kept. Nothing was changed.",
  });
});

test('it is refused while the app is connected', async () => {
  const url = await another('backup_in_use');
  const before = await rows(url);
  await using(url, async (pool) => {
    await many(pool, z.unknown(), 'SELECT 1');
    for (const args of [[file, '--replace'], ['--undo']])
      expect((await run('restore', url, ...args)).said).toMatch(
        /is in use\. Stop the app, .* Nothing was changed\.$/,
      );
  });
  expect(await rows(url)).toEqual(before);
});

describe('a file that is no whole, unchanged backup of ours changes nothing', () => {
  let url = '';
  let before: unknown;
  beforeAll(async () => {
    url = await another('backup_hostile');
    before = await rows(url);
  });
  const refuses = async (path: string, why: RegExp, trust = false) => {
    const options = { replace: true, trust, tell: () => undefined };
    await expect(restore(url, path, SECRET, options)).rejects.toThrow(why);
    expect(await rows(url)).toEqual(before);
    const left = await using(url, (pool) =>
      many(
        pool,
        Named,
        `SELECT schema_name AS name FROM information_schema.schemata WHERE schema_name LIKE 'flarik\\_backup\\_hostile\\_%'`,
      ),
    );
    expect(left).toEqual([]);
  };
  const write = (name: string, bytes: Buffer): string => {
    writeFileSync(join(dir, name), bytes);
    return join(dir, name);
  };

  test('cut short, at every tenth', async () => {
    const bytes = readFileSync(file);
    for (let tenth = 0; tenth < 10; tenth++)
      await refuses(
        write('short', bytes.subarray(0, Math.floor((bytes.length * tenth) / 10))),
        /is not a complete backup|cannot be read as a backup|is not a Flarik backup/,
      );
    const lines = gunzipSync(bytes).toString('utf8').trim().split('\n');
    await refuses(
      write('no foot', gzipSync(`${lines.slice(0, -1).join('\n')}\n`)),
      /is not a complete backup/,
    );
    await refuses(write('no end', gzipSync(lines.join('\n'))), /is not a complete backup/);
    await refuses(write('more', gzipSync(`${lines.join('\n')}\n{}\n`)), /follows the end/);
  });

  test('of something else', async () => {
    await refuses(join(dir, 'none'), /cannot be read as a backup/);
    await refuses(dir, /cannot be read as a backup/);
    await refuses(write('text', Buffer.from('no backup')), /cannot be read as a backup/);
    await refuses(
      write('dump', gzipSync('-- MariaDB dump\nDROP TABLE build;\n-- Dump completed\n')),
      /is not a Flarik backup/,
    );
    await refuses(write('json', gzipSync('{"format":"else"}\n')), /is not a Flarik backup/);
    await refuses(write('empty', gzipSync('')), /is not a complete backup/);
    await refuses(write('long', gzipSync(Buffer.alloc(40 * 1024 * 1024, 'x'))), /line 1 is too long/);
  });

  test('changed after it was made, or signed by somebody else', async () => {
    const text = gunzipSync(readFileSync(file)).toString('utf8');
    await refuses(
      write('changed', gzipSync(text.replace('As delivered', 'As accepted_'))),
      /its checksum does not match/,
      true,
    );
    await refuses(
      forge('foreign', (lines) => lines, 'a secret of some other server somewhere'),
      /is not signed with this server's secret/,
    );
  });

  test('with tables or rows that do not fit', async () => {
    const without = (lines: unknown[], table: string) => {
      const head = headOf(lines);
      const at = head.tables.findIndex(({ name }) => name === table);
      const tables = head.tables.filter((_, i) => i !== at);
      const rest = lines.slice(1).flatMap((line): unknown[] => {
        const [i, cells] = Row.parse(line);
        return i === at ? [] : [[i > at ? i - 1 : i, cells]];
      });
      return [{ ...head, tables }, ...rest];
    };
    await refuses(
      forge('no packs', (lines) => without(lines, 'rule_pack')),
      /not a complete backup: rule_pack\.\w+ is missing/,
    );
    await refuses(
      forge('own table', (lines) => [
        { ...headOf(lines), tables: [...headOf(lines).tables, { name: 'mysql.user', columns: ['x'] }] },
        ...lines.slice(1),
      ]),
      /has mysql\.user\.x, which its migrations do not make/,
    );
    await refuses(
      forge('later', (lines) => [
        {
          ...headOf(lines),
          migrations: [...headOf(lines).migrations, { number: 900, name: '900_later.sql', checksum: 'x' }],
        },
        ...lines.slice(1),
      ]),
      /made by another version of Flarik.*900_later\.sql/,
    );
    await refuses(
      forge('orphans', (lines) =>
        inTable(lines, 'build_revision', withCell('build_id', crypto.randomUUID())),
      ),
      /a row of table 'build_revision' was refused/,
    );
    await refuses(
      forge('too long', (lines) => inTable(lines, 'build', withCell('name', 'x'.repeat(81)))),
      /a row of table 'build' was refused/,
    );
    await refuses(
      forge('narrow', (lines) => inTable(lines, 'build', (cells) => cells.slice(1))),
      /is not a row of any table/,
    );
  });

  test('with a document that cannot be read', async () => {
    await refuses(
      forge('no json', (lines) => inTable(lines, 'build', withCell('document', '{'))),
      /build '.+' cannot be read/,
    );
    await refuses(
      forge('no build', (lines) => inTable(lines, 'build', withCell('document', '{"format":"else"}'))),
      /build '.+' cannot be read/,
    );
    await refuses(
      forge('packed', (lines) =>
        inTable(lines, 'build_revision', withCell('packed', { base64: 'AAAAAA==' })),
      ),
      /build '.+' cannot be read/,
    );
    await refuses(
      forge('pack', (lines) => inTable(lines, 'rule_pack', withCell('document', '{}'))),
      /the rule packs cannot be read/,
    );
    await refuses(
      forge('version', (lines) => inTable(lines, 'rule_pack_version', withCell('document', '{}'))),
      /the versions of rule pack '.+' cannot be read/,
    );
    await refuses(
      forge('no last', (lines) => inTable(lines, 'build', withCell('version', 7))),
      /its last revision, 7, is missing/,
    );
    let n = 0;
    await refuses(
      forge('older', (lines) =>
        inTable(lines, 'build_revision', (cells, columns) =>
          n++ === 0
            ? withCell('packed', { base64: Buffer.from('xxxxxxx').toString('base64') })(cells, columns)
            : cells,
        ),
      ),
      /revision 1 of build '.+' cannot be read/,
    );
  });
});

test('a backup of another server is taken with --trust', async () => {
  const url = await freshDatabase('backup_trust');
  const foreign = forge('trusted', (lines) => lines, 'a secret of some other server somewhere');
  expect(await run('restore', url, foreign, '--trust')).toMatchObject({ code: 0 });
});

test('a backup from before a migration is brought up to date', async () => {
  const [from, into] = [await freshDatabase('backup_old'), await freshDatabase('backup_old_into')];
  await using(from, async (pool) => {
    await migrate(pool, MIGRATIONS.slice(0, 5));
    await fill(pool);
  });
  expect(await run('backup', from, join(dir, 'old.backup'))).toMatchObject({ code: 0 });
  expect(await run('restore', into, join(dir, 'old.backup'))).toMatchObject({ code: 0 });
  const [old, now] = [await rows(from), await rows(into)];
  expect(now).toMatchObject(old);
  expect(Object.keys(now).length).toBeGreaterThan(Object.keys(old).length);
});

test('versions go on: nobody saves over a restored build from a version that was replaced', async () => {
  const url = await freshDatabase('backup_versions');
  const note = () => ({ saveId: crypto.randomUUID(), changed: 'More' });
  expect(await run('restore', url, file)).toMatchObject({ code: 0 });
  const [first = '', second = ''] = ids;
  const later = await fileBuild(demoBuild('ks-13'));
  await using(url, async (pool) => {
    const there = (await findBuild(pool, first))?.build;
    if (there === undefined) throw new Error('the build was not restored');
    await saveBuild(pool, await fileBuild({ ...there, notes: 'third' }), 2, note());
    await saveBuild(pool, await fileBuild({ ...there, notes: 'fourth' }), 3, note());
    await insertBuild(pool, later, note());
  });
  expect(await run('restore', url, file, '--replace')).toMatchObject({ code: 0 });
  await using(url, async (pool) => {
    const restored = await findBuild(pool, first);
    expect(restored).toMatchObject({ version: 5, build: { notes: ODD } });
    expect((await findRevision(pool, first, 5))?.build).toEqual(restored?.build);
    // One that nobody touched since the backup stays in its version.
    expect((await findBuild(pool, second))?.version).toBe(2);
    const mine = await fileBuild({ ...demoBuild('ks-12'), id: first });
    expect(await saveBuild(pool, mine, 4, note())).toMatchObject({ kind: 'stale' });
    // One that was made after the backup comes back in a version that it never had.
    expect(await insertBuild(pool, later, note())).toBe(2);
  });
});

test('killed at any moment, what stands there is the old or the new, whole', async () => {
  const url = await another('backup_killed');
  const before = (await rows(url)).build?.length;
  const old = await using(url, (pool) =>
    many(pool, z.strictObject({ id: z.string() }), 'SELECT id FROM build ORDER BY 1'),
  );
  const whole = start('restore', url, file, '--replace');
  const begun = Date.now();
  expect(await whole.ended).toMatchObject({ code: 0 });
  const tookMs = Date.now() - begun;
  expect(await run('restore', url, '--undo')).toMatchObject({ code: 0 });
  const seen = new Set<string>();
  for (let n = 0; n <= 12; n++) {
    const { child, ended } = start('restore', url, file, '--replace');
    setTimeout(() => child.kill('SIGKILL'), (tookMs * (n + 4)) / 14);
    await ended;
    const now = await using(url, (pool) =>
      many(pool, z.strictObject({ id: z.string() }), 'SELECT id FROM build ORDER BY 1'),
    );
    const isOld = JSON.stringify(now) === JSON.stringify(old);
    seen.add(isOld ? 'old' : 'new');
    if (isOld) expect((await rows(url)).build).toHaveLength(before ?? 0);
    else {
      expect(now.map(({ id }) => id)).toEqual([...ids].toSorted());
      expect(await run('restore', url, '--undo')).toMatchObject({ code: 0 });
    }
  }
  expect(seen).toContain('old');
  // What the killed ones left behind is in nobody's way.
  expect(await run('restore', url, file, '--replace')).toMatchObject({ code: 0 });
});

test('what is asked for wrongly is said', async () => {
  const url = await freshDatabase('backup_asked');
  for (const args of [[], ['a', 'b'], ['--force'], ['--undo', file], ['--undo', '--trust']])
    expect((await run('restore', url, ...args)).said).toMatch(/^Restore needs one backup: npm run restore/);
  for (const args of [[], ['a', 'b'], ['--all']])
    expect((await run('backup', url, ...args)).said).toMatch(/^The backup needs a file name/);
  expect((await run('restore', url, join(dir, 'none'))).said).toBe(
    `There is no file ${join(dir, 'none')}. Nothing was changed.`,
  );
  expect((await run('backup', url, join(dir, 'nothing'))).said).toMatch(
    /^Nothing was backed up: .*no tables of Flarik/,
  );
  const away = 'mysql://a:b@127.0.0.1:9/flarik';
  expect((await run('restore', away, file)).said).toBe(
    'The database cannot be reached. Nothing was changed; try again in a moment.',
  );
  expect((await run('backup', away, join(dir, 'x'))).said).toMatch(/^Nothing was backed up: /);
  expect((await run('backup', 'nowhere', join(dir, 'x'))).said).toMatch(/^DATABASE_URL must give/);
  expect((await run('restore', `${url}${'x'.repeat(40)}`, file)).said).toMatch(
    /^DATABASE_URL must name a database/,
  );
});
