import type { Pool } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { z } from 'zod';
import { deleteBuild, findBuild, insertBuild, listBuilds, saveBuild } from './buildRepo';
import { DatabaseDownError, many, openPool } from './db';
import { migrate, MIGRATIONS } from './migrate';
import { demoBuild, freshDatabase } from './support.testing';

let pool: Pool;
const none = { blocking: 0, other: 0 };
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
    expect(await insertBuild(pool, build, { blocking: 3, other: 1 }, id())).toBe(true);
    expect((await findBuild(pool, build.id))?.build).toEqual(build);
    const listed = (await listBuilds(pool)).find((b) => b.id === build.id);
    expect(listed).toMatchObject({ name: build.name, version: 1, findingsBlocking: 3, findingsOther: 1 });
  });

  test('an id that is taken is not taken twice', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, none, id());
    expect(await insertBuild(pool, { ...build, name: 'Other' }, none, id())).toBe(false);
    expect((await findBuild(pool, build.id))?.build.name).toBe(build.name);
  });

  test('a stale save changes nothing and is told what stands there', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, none, id());
    expect(await saveBuild(pool, { ...build, name: 'Mine' }, 1, id(), none)).toMatchObject({
      kind: 'saved',
      version: 2,
    });
    const stale = await saveBuild(pool, { ...build, name: 'Late' }, 1, id(), none);
    expect(stale).toMatchObject({ kind: 'stale', current: { version: 2, build: { name: 'Mine' } } });
    expect((await findBuild(pool, build.id))?.version).toBe(2);
  });

  test('a save repeated under its own id happens once', async () => {
    const build = demoBuild('ks-12');
    await insertBuild(pool, build, none, id());
    const saveId = id();
    const first = await saveBuild(pool, build, 1, saveId, none);
    expect(await saveBuild(pool, build, 1, saveId, none)).toEqual(first);
    const revisions = await many(
      pool,
      z.object({ version: z.number() }),
      'SELECT version FROM build_revision WHERE build_id = ? ORDER BY version',
      [build.id],
    );
    expect(revisions.map((r) => r.version)).toEqual([1, 2]);
  });

  test('of saves at the same time on one version, one wins and the others are stale', async () => {
    const build = demoBuild('ks-13');
    await insertBuild(pool, build, none, id());
    const outcomes = await Promise.all(
      Array.from({ length: 6 }, (_, i) => saveBuild(pool, { ...build, name: `Racer ${i}` }, 1, id(), none)),
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
    expect(await saveBuild(pool, demoBuild('ks-12'), 1, id(), none)).toEqual({ kind: 'missing' });
    expect(await deleteBuild(pool, id())).toBe(false);
    expect(await findBuild(pool, id())).toBeNull();
  });
});

test('a database that is not there is said in one sentence', async () => {
  const nowhere = openPool('mysql://flarik:x@127.0.0.1:1/flarik');
  await expect(listBuilds(nowhere)).rejects.toThrow(DatabaseDownError);
  await nowhere.end();
});
