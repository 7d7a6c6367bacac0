import type { Pool } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { z } from 'zod';
import {
  deleteBuild,
  findBuild,
  insertBuild,
  keepCounts,
  listBuilds,
  saveBuild,
  staleSave,
  uncounted,
} from './buildRepo';
import { DatabaseBusyError, DatabaseDownError, many, openPool } from './db';
import { migrate, MIGRATIONS } from './migrate';
import { demoBuild, freshDatabase } from './support.testing';

let pool: Pool;
const listed = async (of: string) => (await listBuilds(pool)).find((b) => b.id === of);
const id = (): string => crypto.randomUUID();

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
    expect(await insertBuild(pool, build, id())).toBe(1);
    expect((await findBuild(pool, build.id))?.build).toEqual(build);
    expect(await listed(build.id)).toMatchObject({ name: build.name, version: 1, findings: null });
  });

  test('counts are kept for the version they are of, and for no other', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, id());
    expect(await listed(build.id)).toMatchObject({ findings: null, counting: true });
    const counts = { blocks: 3, warns: 1, advises: 0, notes: 2 };
    await keepCounts(pool, { id: build.id, version: 1 }, counts);
    expect(await listed(build.id)).toMatchObject({ findings: counts, counting: false });
    await saveBuild(pool, { ...build, name: 'Later' }, 1, id());
    await keepCounts(pool, { id: build.id, version: 1 }, { ...counts, blocks: 9 });
    expect(await listed(build.id)).toMatchObject({ findings: counts, counting: true });
    expect(await uncounted(pool)).toContainEqual({ id: build.id });
    await keepCounts(pool, { id: build.id, version: 2 }, null);
    expect(await listed(build.id)).toMatchObject({ findings: null, counting: false });
    expect(await uncounted(pool)).not.toContainEqual({ id: build.id });
  });

  test('an id that is taken is not taken twice', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, id());
    expect(await insertBuild(pool, { ...build, name: 'Other' }, id())).toBeNull();
    expect((await findBuild(pool, build.id))?.build.name).toBe(build.name);
  });

  test('a stale save changes nothing and is told what stands there', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, id());
    expect(await saveBuild(pool, { ...build, name: 'Mine' }, 1, id())).toMatchObject({
      kind: 'saved',
      version: 2,
    });
    const stale = await saveBuild(pool, { ...build, name: 'Late' }, 1, id());
    expect(stale).toMatchObject({ kind: 'stale', current: { version: 2, build: { name: 'Mine' } } });
    expect((await findBuild(pool, build.id))?.version).toBe(2);
  });

  test('a save repeated under its own id happens once', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, id());
    const saveId = id();
    const first = await saveBuild(pool, build, 1, saveId);
    expect(await saveBuild(pool, build, 1, saveId)).toEqual(first);
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
    await insertBuild(pool, build, id());
    const saveId = id();
    await saveBuild(pool, build, 1, saveId);
    const other = await saveBuild(pool, { ...build, name: 'Other' }, 2, saveId);
    expect(other).toEqual({ kind: 'id taken' });
    expect((await findBuild(pool, build.id))?.version).toBe(2);
  });

  test('what is stale, or not there, is told before its contents are read', async () => {
    const build = demoBuild('ks-12');
    const [first, second] = [id(), id()];
    await insertBuild(pool, build, id());
    await saveBuild(pool, build, 1, first);
    expect(await staleSave(pool, build.id, 1, second)).toMatchObject({ kind: 'stale' });
    expect(await staleSave(pool, build.id, 1, first)).toBeNull();
    expect(await staleSave(pool, build.id, 2, second)).toBeNull();
    expect(await staleSave(pool, id(), 1, second)).toEqual({ kind: 'missing' });
  });

  test('a build that was deleted and comes back is no place for whoever still has the old one open', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, id());
    expect(await deleteBuild(pool, build.id)).toBe(true);
    expect(await insertBuild(pool, { ...build, name: 'Back' }, id())).toBe(2);
    expect(await saveBuild(pool, { ...build, name: 'Old' }, 1, id())).toMatchObject({ kind: 'stale' });
    expect((await findBuild(pool, build.id))?.build.name).toBe('Back');
  });

  test.each(['upper case', 'a blank at the end'])('an id with %s is another id', async (how) => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, id());
    const like = how === 'upper case' ? build.id.toUpperCase() : `${build.id} `;
    expect(await findBuild(pool, like)).toBeNull();
    expect(await deleteBuild(pool, like)).toBe(false);
  });

  test('a row that another holds is waited for a few seconds, then it is said', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, id());
    const holder = await pool.getConnection();
    await holder.beginTransaction();
    await holder.query('SELECT 1 FROM build WHERE id = ? FOR UPDATE', [build.id]);
    const saves = await Promise.allSettled(Array.from({ length: 15 }, () => saveBuild(pool, build, 1, id())));
    for (const save of saves)
      expect(save.status === 'rejected' && save.reason).toBeInstanceOf(DatabaseBusyError);
    expect(await findBuild(pool, build.id)).toMatchObject({ version: 1 });
    await holder.rollback();
    holder.release();
    expect(await saveBuild(pool, build, 1, id())).toMatchObject({ kind: 'saved' });
  });

  test('of saves at the same time on one version, one wins and the others are stale', async () => {
    const build = demoBuild('ks-13');
    await insertBuild(pool, build, id());
    const outcomes = await Promise.all(
      Array.from({ length: 6 }, (_, i) => saveBuild(pool, { ...build, name: `Racer ${i}` }, 1, id())),
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
    expect(await saveBuild(pool, demoBuild('ks-12'), 1, id())).toEqual({ kind: 'missing' });
    expect(await deleteBuild(pool, id())).toBe(false);
    expect(await findBuild(pool, id())).toBeNull();
  });
});

test('a database that is not there is said in one sentence', async () => {
  const nowhere = openPool('mysql://flarik:x@127.0.0.1:1/flarik');
  await expect(listBuilds(nowhere)).rejects.toThrow(DatabaseDownError);
  await nowhere.end();
});
