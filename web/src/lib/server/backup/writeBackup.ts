import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { createConnection, type Connection } from 'mysql2';
import { z } from 'zod';
import { BackupError, NOT_KEPT, toCell, type Foot, type Head, type Value } from './format';
import { sign } from './secret';

/**
 * Writes every row of a database into a file, as they stood at one moment; the app may go on saving.
 * @param url - of the database
 * @param file - must not exist
 * @returns the number of rows of each table
 * @throws {BackupError} the database has no tables of Flarik's
 */
export async function writeBackup(
  url: string,
  file: string,
  secret: string,
): Promise<ReadonlyMap<string, number>> {
  const connection = createConnection({
    uri: url,
    charset: 'utf8mb4',
    dateStrings: true,
    supportBigNumbers: true,
    bigNumberStrings: true,
    rowsAsArray: true,
  });
  try {
    const ask = askerOf(connection);
    await ask(z.unknown(), 'SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ');
    await ask(z.unknown(), 'START TRANSACTION WITH CONSISTENT SNAPSHOT');
    const head: Head = {
      format: 'flarik-backup',
      version: 1,
      migrations: await migrationsOf(ask),
      tables: await tablesOf(ask),
    };
    const rows = head.tables.map(() => 0);
    await pipeline(
      linesOf(connection, head, rows, secret),
      createGzip(),
      createWriteStream(file, { flags: 'wx', mode: 0o600, flush: true }),
    );
    return new Map(head.tables.map(({ name }, i) => [name, rows[i] ?? 0]));
  } finally {
    connection.destroy();
  }
}

type Ask = <S extends z.ZodType>(row: S, sql: string) => Promise<z.infer<S>[]>;

const askerOf =
  (connection: Connection): Ask =>
  async (row, sql) => {
    const [answer] = await connection.promise().query(sql);
    return Array.isArray(answer) ? z.array(row).parse(answer) : [];
  };

async function migrationsOf(ask: Ask): Promise<Head['migrations']> {
  const there = await ask(
    z.unknown(),
    `SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'schema_migration'`,
  );
  if (there.length === 0)
    throw new BackupError('There is nothing to back up: the database has no tables of Flarik.');
  const Migration = z.tuple([z.int(), z.string(), z.string()]);
  const applied = await ask(Migration, 'SELECT number, name, checksum FROM schema_migration ORDER BY number');
  return applied.map(([number, name, checksum]) => ({ number, name, checksum }));
}

/** Every table with its columns; one that others refer to before them. */
async function tablesOf(ask: Ask): Promise<Head['tables']> {
  const columns = await ask(
    z.tuple([z.string(), z.string()]),
    `SELECT table_name, column_name FROM information_schema.columns
      WHERE table_schema = DATABASE() AND is_generated = 'NEVER' ORDER BY table_name, ordinal_position`,
  );
  const references = await ask(
    z.tuple([z.string(), z.string()]),
    `SELECT table_name, referenced_table_name FROM information_schema.referential_constraints
      WHERE constraint_schema = DATABASE()`,
  );
  const tables = new Set(columns.map(([table]) => table).filter((table) => !NOT_KEPT.has(table)));
  const ordered = new Set<string>();
  const add = (table: string): void => {
    if (ordered.has(table)) return;
    for (const [from, to] of references) if (from === table && to !== table) add(to);
    ordered.add(table);
  };
  for (const table of tables) add(table);
  return [...ordered].map((name) => ({
    name,
    columns: columns.filter(([table]) => table === name).map(([, column]) => column),
  }));
}

/** All lines of the file; `rows` counts those of each table. */
async function* linesOf(
  connection: Connection,
  head: Head,
  rows: number[],
  secret: string,
): AsyncGenerator<string> {
  const hash = createHash('sha256');
  const line = (value: unknown): string => {
    const text = `${JSON.stringify(value)}\n`;
    hash.update(text);
    return text;
  };
  yield line(head);
  for (const [i, { name, columns }] of head.tables.entries()) {
    const sql = `SELECT ${columns.map((column) => `\`${column}\``).join(', ')} FROM \`${name}\``;
    for await (const row of connection.query(sql).stream({ highWaterMark: 4 })) {
      rows[i] = (rows[i] ?? 0) + 1;
      yield line([i, z.array(z.custom<Value>()).parse(row).map(toCell)]);
    }
  }
  const sha256 = hash.digest('hex');
  const foot: Foot = { rows, sha256, signature: sign(sha256, secret) };
  yield `${JSON.stringify(foot)}\n`;
}
