import type { Build } from '@flarik/core/design/schema';
import type { Pool } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { z } from 'zod';
import {
  archiveBuild,
  deleteBuild,
  findBuild,
  findPicture,
  findStanding,
  insertBuild,
  keepDigest,
  listBuilds,
  saveBuild,
  staleSave,
  type SaveOutcome,
  undigested,
} from './buildRepo';
import { pictureOf } from '../builds/picture';
import {
  clockOf,
  dropUnnamed,
  findRevision,
  listRevisions,
  nameRevision,
  noteStart,
  thinRevisions,
  type SaveNote,
} from './revisionRepo';

/** A server that has run for long. */
const YEARS_MS = 1e12;
import {
  change,
  DatabaseBusyError,
  DatabaseDownError,
  DatabaseFullError,
  many,
  openPool,
  transaction,
  wasFull,
} from './db';
import { fileBuild } from './filed';
import { migrate, MIGRATIONS } from './migrate';
import { demoBuild, freshDatabase } from './support.testing';

let pool: Pool;
const listed = async (of: string) => (await listBuilds(pool)).find((b) => b.id === of);
const id = (): string => crypto.randomUUID();
const note = (saveId = id()): SaveNote => ({ saveId, changed: '' });
const insert = async (db: Pool, build: Build, of: SaveNote): Promise<number | null> =>
  insertBuild(db, await fileBuild(build), of);
const save = async (db: Pool, build: Build, basedOn: number, of: SaveNote): Promise<SaveOutcome> =>
  saveBuild(db, await fileBuild(build), basedOn, of);
const textOf = async (of: string): Promise<unknown> => JSON.parse((await findStanding(pool, of))?.text ?? '');

beforeAll(async () => {
  pool = openPool(await freshDatabase('repo'));
  await migrate(pool);
});
afterAll(() => pool.end());

describe('migrations', () => {
  test('applied again they do nothing', async () => {
    await migrate(pool);
    const rows = await many(pool, z.object({ number: z.number() }), 'SELECT number FROM schema_migration');
    expect(rows).toHaveLength(MIGRATIONS.length);
  });

  test('one that changed after it was applied, or is unknown, is refused by name', async () => {
    const [first] = MIGRATIONS;
    if (first === undefined) throw new Error('there is a first migration');
    await expect(migrate(pool, [{ ...first, checksum: 'x' }])).rejects.toThrow(
      /001_builds\.sql was applied with other contents/,
    );
    await expect(migrate(pool, [])).rejects.toThrow(/does not know/);
  });
});

describe('builds', () => {
  test('what goes in comes out equal', async () => {
    const build = demoBuild('ks-12');
    expect(await insert(pool, build, note())).toBe(1);
    const saved = await findBuild(pool, build.id);
    expect(saved?.build).toEqual(build);
    expect(await textOf(build.id)).toEqual(saved);
    expect(await listed(build.id)).toMatchObject({ name: build.name, version: 1, findings: null });
  });

  test('counts are kept for the version they are of, and for no other', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    expect(await listed(build.id)).toMatchObject({ findings: null, counting: true });
    const counts = { blocks: 3, warns: 1, advises: 0, notes: 2 };
    const digest = { findings: counts, picture: pictureOf(build) };
    await keepDigest(pool, { id: build.id, version: 1 }, digest);
    expect(await listed(build.id)).toMatchObject({ findings: counts, counting: false });
    expect((await findPicture(pool, build.id))?.text).toBe(JSON.stringify(digest.picture));
    await save(pool, { ...build, name: 'Later' }, 1, note());
    await keepDigest(pool, { id: build.id, version: 1 }, { ...digest, findings: { ...counts, blocks: 9 } });
    expect(await listed(build.id)).toMatchObject({ findings: counts, counting: true });
    expect(await undigested(pool)).toContainEqual({ id: build.id });
    await keepDigest(pool, { id: build.id, version: 2 }, null);
    expect(await listed(build.id)).toMatchObject({ findings: null, counting: false });
    expect(await undigested(pool)).not.toContainEqual({ id: build.id });
  });

  test('an id that is taken is not taken twice', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    expect(await insert(pool, { ...build, name: 'Other' }, note())).toBeNull();
    expect((await findBuild(pool, build.id))?.build.name).toBe(build.name);
  });

  test('a stale save changes nothing and is told what stands there', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    expect(await save(pool, { ...build, name: 'Mine' }, 1, note())).toMatchObject({
      kind: 'saved',
      version: 2,
    });
    const stale = await save(pool, { ...build, name: 'Late' }, 1, note());
    expect(stale).toMatchObject({ kind: 'stale', current: { version: 2, name: 'Mine' } });
    expect(await textOf(build.id)).toMatchObject({ version: 2, build: { name: 'Mine' } });
    expect((await findBuild(pool, build.id))?.version).toBe(2);
  });

  test('a save repeated under its own id happens once', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    const saveId = id();
    const first = await save(pool, build, 1, note(saveId));
    expect(await save(pool, build, 1, note(saveId))).toEqual(first);
    const revisions = await many(
      pool,
      z.object({ version: z.number() }),
      'SELECT version FROM build_revision WHERE build_id = ? ORDER BY version',
      [build.id],
    );
    expect(revisions.map((r) => r.version)).toEqual([1, 2]);
  });

  test('a save’s id is not taken for other contents', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    const saveId = id();
    await save(pool, build, 1, note(saveId));
    const other = await save(pool, { ...build, name: 'Other' }, 2, note(saveId));
    expect(other).toEqual({ kind: 'id taken' });
    expect((await findBuild(pool, build.id))?.version).toBe(2);
  });

  test('what is stale, or not there, is told before its contents are read', async () => {
    const build = demoBuild('ks-12');
    const [first, second] = [id(), id()];
    await insert(pool, build, note());
    await save(pool, build, 1, note(first));
    expect(await staleSave(pool, build.id, 1, second)).toMatchObject({ kind: 'stale' });
    expect(await staleSave(pool, build.id, 1, first)).toBeNull();
    expect(await staleSave(pool, build.id, 2, second)).toBeNull();
    expect(await staleSave(pool, id(), 1, second)).toEqual({ kind: 'missing' });
  });

  test('a build that was deleted and comes back is no place for whoever still has the old one open', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    expect(await deleteBuild(pool, build.id)).toBe(true);
    expect(await insert(pool, { ...build, name: 'Back' }, note())).toBe(2);
    expect(await save(pool, { ...build, name: 'Old' }, 1, note())).toMatchObject({ kind: 'stale' });
    expect((await findBuild(pool, build.id))?.build.name).toBe('Back');
  });

  test.each(['upper case', 'a blank at the end'])('an id with %s is another id', async (how) => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    const like = how === 'upper case' ? build.id.toUpperCase() : `${build.id} `;
    expect(await findBuild(pool, like)).toBeNull();
    expect(await deleteBuild(pool, like)).toBe(false);
  });

  test('a row that another holds is waited for a few seconds, then it is said', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    const holder = await pool.getConnection();
    await holder.beginTransaction();
    await holder.query('SELECT 1 FROM build WHERE id = ? FOR UPDATE', [build.id]);
    const saves = await Promise.allSettled(Array.from({ length: 15 }, () => save(pool, build, 1, note())));
    for (const save of saves)
      expect(save.status === 'rejected' && save.reason).toBeInstanceOf(DatabaseBusyError);
    expect(await findBuild(pool, build.id)).toMatchObject({ version: 1 });
    await holder.rollback();
    holder.release();
    expect(await save(pool, build, 1, note())).toMatchObject({ kind: 'saved' });
  });

  test('of saves at the same time on one version, one wins and the others are stale', async () => {
    const build = demoBuild('ks-13');
    await insert(pool, build, note());
    const outcomes = await Promise.all(
      Array.from({ length: 6 }, (_, i) => save(pool, { ...build, name: `Racer ${i}` }, 1, note())),
    );
    expect(outcomes.map((o) => o.kind).toSorted()).toEqual([
      'saved',
      'stale',
      'stale',
      'stale',
      'stale',
      'stale',
    ]);
  });

  test('saving or deleting what is not there', async () => {
    expect(await save(pool, demoBuild('ks-12'), 1, note())).toEqual({ kind: 'missing' });
    expect(await deleteBuild(pool, id())).toBe(false);
    expect(await findBuild(pool, id())).toBeNull();
  });
});

test('a database that is not there is said in one sentence', async () => {
  const nowhere = openPool('mysql://flarik:x@127.0.0.1:1/flarik');
  await expect(listBuilds(nowhere)).rejects.toThrow(DatabaseDownError);
  await nowhere.end();
});

test('a build of an older schema is read before it goes out', async () => {
  const build = demoBuild('ks-12');
  await insert(pool, build, note());
  const old = { ...build, schemaVersion: 3 };
  await change(pool, 'UPDATE build SET document = ? WHERE id = ?', [JSON.stringify(old), build.id]);
  const text = await textOf(build.id);
  expect(text).toMatchObject({ build: { schemaVersion: build.schemaVersion } });
  expect(text).toEqual(await findBuild(pool, build.id));
});

describe('revisions', () => {
  test('are listed, the newest first, and come out as they went in', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, { saveId: id(), changed: 'New build' });
    const later = { ...build, name: 'Über den Damm ▲' };
    await save(pool, later, 1, { saveId: id(), changed: 'Rename the build' });
    const [newest, first] = await listRevisions(pool, build.id);
    expect(newest).toMatchObject({ version: 2, changed: 'Rename the build', name: null });
    expect(first).toMatchObject({ version: 1, bytes: Buffer.byteLength(JSON.stringify(build)) });
    expect((await findRevision(pool, build.id, 1))?.build).toEqual(build);
    expect((await findRevision(pool, build.id, 2))?.build).toEqual(later);
    expect(await findRevision(pool, build.id, 3)).toBeNull();
    expect(await listRevisions(pool, id())).toEqual([]);
  });

  test('are stored as the database packs too, at a fraction of their size', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    const [row] = await many(
      pool,
      z.strictObject({ text: z.string(), packed: z.number() }),
      'SELECT CONVERT(UNCOMPRESS(packed) USING utf8mb4) AS text, LENGTH(packed) AS packed FROM build_revision WHERE build_id = ?',
      [build.id],
    );
    expect(row?.text).toBe(JSON.stringify(build));
    expect(row?.packed).toBeLessThan(JSON.stringify(build).length / 4);
  });

  test('old ones are let go; named ones and the rest stay', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    for (const version of [1, 2, 3, 4]) await save(pool, build, version, note());
    expect(await nameRevision(pool, build.id, 2, 'As agreed')).toBe(true);
    expect(await nameRevision(pool, build.id, 9, 'None')).toBe(false);
    await change(
      pool,
      "UPDATE build_revision SET saved_at = '2026-01-05 10:30:00' + INTERVAL version SECOND WHERE build_id = ? AND version < 5",
      [build.id],
    );
    expect(await thinRevisions(pool, await clockOf(pool, YEARS_MS))).toBeGreaterThan(0);
    const left = await listRevisions(pool, build.id);
    expect(left.map((r) => [r.version, r.name])).toEqual([
      [5, null],
      [4, null],
      [2, 'As agreed'],
      [1, null],
    ]);
    expect((await findBuild(pool, build.id))?.version).toBe(5);
  });

  test('one that is named after it was found too old stays', async () => {
    const build = demoBuild('ks-12');
    await insert(pool, build, note());
    await save(pool, build, 1, note());
    await nameRevision(pool, build.id, 1, 'As agreed');
    expect(await dropUnnamed(pool, build.id, 1)).toBe(0);
    await nameRevision(pool, build.id, 1, null);
    expect(await dropUnnamed(pool, build.id, 1)).toBe(1);
  });

  test('the third last start and the last round are told by the database’s clock', async () => {
    const fresh = openPool(await freshDatabase('repo_clock'));
    await migrate(fresh);
    expect(await clockOf(fresh, 5)).toMatchObject({ upMs: 5, lastSeen: null, thirdLastStart: null });
    for (let i = 0; i < 14; i++) await noteStart(fresh);
    const clock = await clockOf(fresh, YEARS_MS);
    expect(clock.thirdLastStart?.getTime()).toBeLessThanOrEqual(clock.now.getTime());
    expect(await thinRevisions(fresh, clock)).toBe(0);
    expect((await clockOf(fresh, 5)).lastSeen).toEqual(clock.now);
    // A leap: nothing is looked at, and the round is not put down.
    const leapt = {
      ...clock,
      now: new Date(clock.now.getTime() + 400 * 86_400_000),
      lastSeen: clock.now,
      upMs: 5,
    };
    expect(await thinRevisions(fresh, leapt)).toBeNull();
    expect((await clockOf(fresh, 5)).lastSeen).toEqual(clock.now);
    const starts = await many(
      fresh,
      z.strictObject({ n: z.number() }),
      'SELECT COUNT(*) AS n FROM app_start',
    );
    expect(starts[0]?.n).toBe(10);
    await fresh.end();
  });

  test('a database of before is brought over with its revisions', async () => {
    const old = openPool(await freshDatabase('repo_old'));
    await migrate(old, MIGRATIONS.slice(0, 2));
    const build = demoBuild('ks-13');
    const document = JSON.stringify(build);
    await change(
      old,
      `INSERT INTO build (id, name, service, body_type, version, document, updated_at)
       VALUES (?, ?, 'police', 'mid-suv', 1, ?, '2026-01-01')`,
      [build.id, build.name, document],
    );
    await change(
      old,
      "INSERT INTO build_revision (build_id, version, save_id, document, saved_at) VALUES (?, 1, ?, ?, '2026-01-01')",
      [build.id, id(), document],
    );
    // Killed after the first statement of the third: what it did is passed over.
    const [statement = ''] = (MIGRATIONS[2]?.sql ?? '').split(';');
    await change(old, statement);
    await migrate(old);
    expect((await findRevision(old, build.id, 1))?.build).toEqual(build);
    expect((await listRevisions(old, build.id))[0]?.bytes).toBe(Buffer.byteLength(document));
    expect((await listBuilds(old))[0]).toMatchObject({
      jurisdictions: build.brief.jurisdictions,
      counting: true,
    });
    await old.end();
  });
});

test('odd but allowed: jurisdictions of nothing but quotes; another picture has another name', async () => {
  const build = demoBuild('ks-12');
  const jurisdictions = Array.from({ length: 12 }, (_, i) => `${i}${'"\\'.repeat(38)}`);
  const odd = { ...build, brief: { ...build.brief, jurisdictions } };
  expect(await insert(pool, odd, note())).toBe(1);
  expect(await listed(build.id)).toMatchObject({ jurisdictions });
  expect(await listed(build.id)).toMatchObject({ pictureKey: null });
  expect(await findPicture(pool, build.id)).toBeNull();
  const keys = new Set<unknown>();
  for (const text of ['{"vehicle":1}', '{"vehicle":2}']) {
    await change(pool, 'UPDATE build SET picture = ? WHERE id = ?', [text, build.id]);
    const found = await findPicture(pool, build.id);
    expect(found?.text).toBe(text);
    expect(await listed(build.id)).toMatchObject({ pictureKey: found?.key });
    keys.add(found?.key);
  }
  expect(keys.size).toBe(2);
});

test('a build is put away and brought back as it was', async () => {
  const build = demoBuild('ks-12');
  await insert(pool, build, note());
  expect(await archiveBuild(pool, build.id, true)).toBe(true);
  expect(await listed(build.id)).toMatchObject({ archived: true, version: 1 });
  expect(await archiveBuild(pool, build.id, false)).toBe(true);
  expect(await listed(build.id)).toMatchObject({ archived: false });
  expect(await archiveBuild(pool, id(), true)).toBe(false);
});

describe('a deadlock', () => {
  const deadlocked = (times: number) => {
    let tries = 0;
    return {
      tries: () => tries,
      work: async (db: Parameters<Parameters<typeof transaction>[1]>[0]): Promise<number> => {
        tries++;
        await change(db, 'CREATE TEMPORARY TABLE IF NOT EXISTS tried (n INT)');
        await change(db, 'INSERT INTO tried VALUES (?)', [tries]);
        if (tries <= times) throw Object.assign(new Error('deadlock'), { code: 'ER_LOCK_DEADLOCK' });
        return tries;
      },
    };
  };

  test('is tried again from the start, eight times at most', async () => {
    const twice = deadlocked(2);
    expect(await transaction(pool, twice.work)).toBe(3);
    const always = deadlocked(9);
    await expect(transaction(pool, always.work)).rejects.toBeInstanceOf(DatabaseBusyError);
    expect(always.tries()).toBe(8);
  });

  test('a full disk is said, and remembered until something is stored again', async () => {
    const full = Object.assign(new Error('full'), { code: 'ER_RECORD_FILE_FULL' });
    await expect(transaction(pool, () => Promise.reject(full))).rejects.toBeInstanceOf(DatabaseFullError);
    expect(wasFull()).toBe(true);
    await transaction(pool, () => Promise.resolve());
    expect(wasFull()).toBe(false);
  });

  test('another failure is not tried again', async () => {
    let tries = 0;
    const failing = () => {
      tries++;
      return Promise.reject(new Error('no'));
    };
    await expect(transaction(pool, failing)).rejects.toThrow('no');
    expect(tries).toBe(1);
  });
});
