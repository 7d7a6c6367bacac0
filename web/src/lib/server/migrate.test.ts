import type { Pool } from 'mysql2/promise';
import { expect, test } from 'vitest';
import { z } from 'zod';
import { change, many, openPool } from './db';
import { MIGRATIONS, migrate, statementsOf } from './migrate';
import { freshDatabase } from './support.testing';

const BUILD = '7d2d9a3c-2f7b-4f0e-8a55-0d7f6a3c1e11';
const DOCUMENT = JSON.stringify({ brief: { jurisdictions: ['Kestrel Sound'] } });

/** What a shop had when there was only the first migration. */
async function fill(pool: Pool): Promise<void> {
  await change(
    pool,
    `INSERT INTO build (id, name, service, body_type, version, findings_blocking, findings_other, document, updated_at)
     VALUES (?, 'Causeway patrol', 'police', 'mid-suv', 2, 0, 3, ?, '2026-01-05 10:00:00')`,
    [BUILD, DOCUMENT],
  );
  for (const version of [1, 2])
    await change(
      pool,
      `INSERT INTO build_revision (build_id, version, save_id, document, saved_at)
       VALUES (?, ?, ?, ?, '2026-01-05 10:00:00')`,
      [BUILD, version, `${BUILD.slice(0, -1)}${version}`, DOCUMENT],
    );
  await change(
    pool,
    `INSERT INTO rule_pack (id, name, document, updated_at) VALUES ('shop', 'Shop rules', '{}', '2026-01-05 10:00:00')`,
  );
}

const Named = z.strictObject({ name: z.string() });
/** Every table as it is made, and all that is in it; when migrations ran is left out. */
async function stateOf(pool: Pool): Promise<unknown> {
  const tables = await many(
    pool,
    Named,
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() ORDER BY 1',
  );
  return Promise.all(
    tables
      .filter(({ name }) => name !== 'lease')
      .map(async ({ name }) => ({
        made: await many(pool, z.looseObject({}), `SHOW CREATE TABLE ${name}`),
        rows: await many(
          pool,
          z.unknown(),
          name === 'schema_migration'
            ? `SELECT number, name, checksum FROM ${name} ORDER BY 1`
            : `SELECT * FROM ${name} ORDER BY 1, 2`,
        ),
      })),
  );
}

/** A database brought up to before a migration, with a shop's work in it as soon as there are tables for it. */
async function upTo(name: string, number: number): Promise<Pool> {
  const pool = openPool(await freshDatabase(name));
  if (number > 1) {
    await migrate(pool, MIGRATIONS.slice(0, 1));
    await fill(pool);
    await migrate(pool, MIGRATIONS.slice(0, number - 1));
  }
  return pool;
}

test('killed after any statement of any migration, the next start finishes it, and nothing is lost', async () => {
  const whole = new Map<boolean, unknown>();
  for (const filled of [false, true]) {
    const pool = await upTo('migrate_whole', filled ? 2 : 1);
    await migrate(pool);
    whole.set(filled, await stateOf(pool));
    await pool.end();
  }
  for (const migration of MIGRATIONS)
    for (let done = 0; done <= statementsOf(migration).length; done++) {
      const pool = await upTo('migrate_killed', migration.number);
      for (const statement of statementsOf(migration).slice(0, done)) await change(pool, statement);
      const at = `${migration.name} after ${done} statements`;
      await expect(migrate(pool), at).resolves.toBeUndefined();
      expect(await stateOf(pool), at).toEqual(whole.get(migration.number > 1));
      await pool.end();
    }
}, 240_000);

test('the database of an earlier version, with the migrations as they were then, is taken on', async () => {
  const pool = await upTo('migrate_former', 3);
  for (const [number, checksum] of [
    [1, '1612a5b79fa94a3cb7679c94d3db7904be4e3eae6c7b980b5d4ee3058cabda6e'],
    [2, 'c2fa0000d2cb750314c67587746551130bcf600dbc9aabf6a4451923046fcb94'],
  ] as const)
    await change(pool, 'UPDATE schema_migration SET checksum = ? WHERE number = ?', [checksum, number]);
  await expect(migrate(pool)).resolves.toBeUndefined();
  await change(pool, `UPDATE schema_migration SET checksum = REPEAT('0', 64) WHERE number = 2`);
  await expect(migrate(pool)).rejects.toThrow(/002_counts_and_ids.sql was applied with other contents/);
  await pool.end();
});
