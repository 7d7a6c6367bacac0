import { createConnection, type Connection } from 'mysql2';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { many, openPool } from '../db';
import { migrate, type Migration } from '../migrate';
import { checkContents, type Contents } from './checkContents';
import { BackupError, NOT_KEPT, type Head, type Value } from './format';
import { readBackup } from './readBackup';

export interface FillOptions {
  readonly secret: string;
  readonly head: Head;
  /** The migrations that the backup's rows fit. */
  readonly known: readonly Migration[];
  readonly tell: (done: number, of: number) => void;
}

/**
 * Makes the tables that a backup was made from in an empty database, puts its rows in, migrates them and reads them all.
 * @throws {BackupError} a row is refused or cannot be read
 */
export async function fill(
  url: string,
  file: string,
  { secret, head, known, tell }: FillOptions,
): Promise<Contents> {
  const pool = openPool(url);
  try {
    await migrate(pool, known);
    await checkTables(pool, file, head);
    await insertRows(url, file, secret);
    await migrate(pool);
    return await checkContents(pool, tell);
  } finally {
    await pool.end();
  }
}

/** So many rows go in together. */
const BATCH = 200;

async function insertRows(url: string, file: string, secret: string): Promise<void> {
  const connection = createConnection({ uri: url, charset: 'utf8mb4', timezone: 'Z' });
  try {
    const run = (sql: string): Promise<unknown> => connection.promise().query(sql);
    // A text that is too long is refused, not cut.
    await run(`SET SESSION sql_mode = 'STRICT_ALL_TABLES,NO_ENGINE_SUBSTITUTION'`);
    await run('START TRANSACTION');
    let count = 0;
    await readBackup(file, secret, async (table, values) => {
      await insert(connection, file, table, values);
      count++;
      if (count % BATCH === 0) await run('COMMIT AND CHAIN');
    });
    await run('COMMIT');
  } finally {
    connection.destroy();
  }
}

async function insert(
  connection: Connection,
  file: string,
  { name, columns }: Head['tables'][number],
  values: Value[],
): Promise<void> {
  const sql = `INSERT INTO \`${name}\` (${columns.map((c) => `\`${c}\``).join(', ')}) VALUES (${columns.map(() => '?').join(', ')})`;
  try {
    await connection.promise().execute(sql, values);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new BackupError(`${file}: a row of table '${name}' was refused: ${why}.`);
  }
}

/** @throws {BackupError} the backup lacks a table or a column, or has one that its migrations do not make */
async function checkTables(pool: Pool, file: string, { tables }: Head): Promise<void> {
  const made = await many(
    pool,
    z.strictObject({ t: z.string(), c: z.string() }),
    `SELECT table_name AS t, column_name AS c FROM information_schema.columns
      WHERE table_schema = DATABASE() AND is_generated = 'NEVER'`,
  );
  const wanted = made.filter(({ t }) => !NOT_KEPT.has(t)).map(({ t, c }) => `${t}.${c}`);
  const found = tables.flatMap(({ name, columns }) => columns.map((c) => `${name}.${c}`));
  const missing = wanted.find((column) => !found.includes(column));
  if (missing !== undefined)
    throw new BackupError(`${file} is not a complete backup: ${missing} is missing.`);
  const strange = found.find((column, i) => !wanted.includes(column) || found.indexOf(column) !== i);
  if (strange !== undefined)
    throw new BackupError(`${file} has ${strange}, which its migrations do not make.`);
}
