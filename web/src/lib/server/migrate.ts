import { createHash } from 'node:crypto';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { change, many } from './db';
import { withLease } from './lease';

const files = import.meta.glob<string>('../../../../db/migrations/*.sql', {
  query: '?raw',
  import: 'default',
  eager: true,
});

export interface Migration {
  readonly number: number;
  readonly name: string;
  readonly sql: string;
  readonly checksum: string;
}

/** Contents that a migration had before each of its statements could be repeated: their outcome is the same. */
const FORMER_CHECKSUMS: ReadonlyMap<number, string> = new Map([
  [1, '1612a5b79fa94a3cb7679c94d3db7904be4e3eae6c7b980b5d4ee3058cabda6e'],
  [2, 'c2fa0000d2cb750314c67587746551130bcf600dbc9aabf6a4451923046fcb94'],
]);

/** The numbered migrations that ship with the app, in order. */
export const MIGRATIONS: readonly Migration[] = Object.entries(files)
  .map(([path, sql]) => {
    const name = path.slice(path.lastIndexOf('/') + 1);
    return {
      number: Number(name.slice(0, 3)),
      name,
      sql,
      checksum: createHash('sha256').update(sql).digest('hex'),
    };
  })
  .toSorted((a, b) => a.number - b.number);

const AppliedRow = z.strictObject({ number: z.number(), name: z.string(), checksum: z.string() });

/** Whether a migration that was applied somewhere is one of ours, of the same outcome. */
export const isKnown = ({ number, checksum }: { number: number; checksum: string }): boolean =>
  MIGRATIONS.some((m) => m.number === number && m.checksum === checksum) ||
  FORMER_CHECKSUMS.get(number) === checksum;

/**
 * What a migration does, one after the other. A statement is done whole or not at all, but a kill may come after any of
 * them: all of them can be repeated.
 */
export const statementsOf = ({ sql }: Migration): string[] =>
  sql.split(/;\s*$/m).filter((statement) => statement.trim() !== '');

/**
 * Brings the database up to the newest migration, one server at a time.
 * @throws {Error} a migration that was applied has changed since, or is unknown to this version
 */
export async function migrate(pool: Pool, migrations: readonly Migration[] = MIGRATIONS): Promise<void> {
  await many(pool, z.unknown(), 'SELECT 1');
  await withLease(pool, 'migrate', () => applyMissing(pool, migrations));
}

async function applyMissing(pool: Pool, migrations: readonly Migration[]): Promise<void> {
  await change(
    pool,
    `CREATE TABLE IF NOT EXISTS schema_migration (
      number INT UNSIGNED NOT NULL PRIMARY KEY,
      name VARCHAR(100) NOT NULL,
      checksum CHAR(64) CHARACTER SET ascii NOT NULL,
      applied_at DATETIME(3) NOT NULL
    ) ENGINE = InnoDB`,
  );
  const applied = await many(
    pool,
    AppliedRow,
    'SELECT number, name, checksum FROM schema_migration ORDER BY number',
  );
  for (const row of applied) {
    const known = migrations.find((m) => m.number === row.number);
    if (known === undefined)
      throw new Error(`The database has migration ${row.name}, which this version of Flarik does not know.`);
    if (known.checksum !== row.checksum && FORMER_CHECKSUMS.get(row.number) !== row.checksum)
      throw new Error(
        `Migration ${row.name} was applied with other contents than this version of Flarik has.`,
      );
  }
  for (const m of migrations.filter((m) => applied.every((row) => row.number !== m.number))) {
    for (const statement of statementsOf(m)) await change(pool, statement);
    await change(
      pool,
      'INSERT INTO schema_migration (number, name, checksum, applied_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3))',
      [m.number, m.name, m.checksum],
    );
  }
}
