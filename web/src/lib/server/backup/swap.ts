import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { change, many } from '../db';

const Named = z.strictObject({ name: z.string() });

/** The tables of a database; [] when there is no such database. */
export const tablesOf = async (db: Pool, schema: string): Promise<string[]> =>
  (
    await many(
      db,
      Named,
      `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? ORDER BY 1`,
      [schema],
    )
  ).map(({ name }) => name);

/** How many builds a database holds; 0 when it has no table for them. */
export async function countBuilds(db: Pool, schema: string): Promise<number> {
  if (!(await tablesOf(db, schema)).includes('build')) return 0;
  const [row] = await many(
    db,
    z.strictObject({ n: z.int() }),
    `SELECT COUNT(*) AS n FROM \`${schema}\`.build`,
  );
  return row?.n ?? 0;
}

/** Makes a database, which must not exist. */
export const createSchema = (db: Pool, schema: string): Promise<number> =>
  change(db, `CREATE DATABASE \`${schema}\` CHARACTER SET utf8mb4`);

export const dropSchema = (db: Pool, schema: string): Promise<number> =>
  change(db, `DROP DATABASE IF EXISTS \`${schema}\``);

/**
 * Puts the tables of `incoming` into `schema`, and those that were there into `aside`, which is empty: in one statement, which the
 * database does whole or not at all. `incoming` is dropped.
 */
export async function swap(db: Pool, schema: string, incoming: string, aside: string): Promise<void> {
  const [old, fresh] = [await tablesOf(db, schema), await tablesOf(db, incoming)];
  const move = (tables: readonly string[], from: string, to: string): string[] =>
    tables.map((table) => `\`${from}\`.\`${table}\` TO \`${to}\`.\`${table}\``);
  await change(
    db,
    `RENAME TABLE ${[...move(old, schema, aside), ...move(fresh, incoming, schema)].join(', ')}`,
  );
  await dropSchema(db, incoming);
}

/** In the name of a database, when it was put aside. */
const ASIDE = '_replaced_';

/** What a database that is replaced now is called; its moment comes after those of all before it. */
export async function asideName(db: Pool, schema: string): Promise<string> {
  const last = (await putAside(db, schema)).at(-1)?.at.getTime() ?? 0;
  const at = new Date(Math.max(Date.now(), last + 1));
  return `${schema}${ASIDE}${at
    .toISOString()
    .replaceAll(/[-:.Z]/g, '')
    .toLowerCase()}`;
}

/** The databases that were put aside for this one, the oldest first, each with its moment. */
export async function putAside(db: Pool, schema: string): Promise<{ name: string; at: Date }[]> {
  const rows = await many(
    db,
    Named,
    'SELECT schema_name AS name FROM information_schema.schemata WHERE LEFT(schema_name, ?) = ? ORDER BY 1',
    [schema.length + ASIDE.length, `${schema}${ASIDE}`],
  );
  return rows.flatMap(({ name }) => {
    const [, y, m, d, h, min, s, ms] = /_(\d{4})(\d\d)(\d\d)t(\d\d)(\d\d)(\d\d)(\d{3})$/.exec(name) ?? [];
    return y === undefined ? [] : [{ name, at: new Date(`${y}-${m}-${d}T${h}:${min}:${s}.${ms}Z`) }];
  });
}
