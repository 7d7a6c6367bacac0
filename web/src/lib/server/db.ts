import mysql, { type Pool, type PoolConnection, type ResultSetHeader } from 'mysql2/promise';
import { z } from 'zod';

/** The database cannot be reached just now. */
export class DatabaseDownError extends Error {
  constructor(cause: unknown) {
    super('The database cannot be reached. Nothing was changed; try again in a moment.', { cause });
    this.name = 'DatabaseDownError';
  }
}

/** What a query runs on: the pool, or one connection inside a transaction. */
export type Db = Pool | PoolConnection;
type Value = string | number | null;

export const openPool = (url: string): Pool =>
  mysql.createPool({
    uri: url,
    timezone: 'Z',
    charset: 'utf8mb4',
    supportBigNumbers: true,
    connectionLimit: 10,
    connectTimeout: 5000,
  });

const LOST = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOENT',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
]);

const codeOf = (error: unknown): string =>
  z.looseObject({ code: z.string() }).catch({ code: '' }).parse(error).code;

const told = (error: unknown): unknown => (LOST.has(codeOf(error)) ? new DatabaseDownError(error) : error);

/** All rows, each parsed. */
export async function many<S extends z.ZodType>(db: Db, row: S, sql: string, values: Value[] = []) {
  const [rows] = await db.execute(sql, values).catch((error: unknown) => {
    throw told(error);
  });
  return z.array(row).parse(rows);
}

/** The one row, or null. */
export async function maybeOne<S extends z.ZodType>(db: Db, row: S, sql: string, values: Value[] = []) {
  const [first] = await many(db, row, sql, values);
  return first ?? null;
}

/** Runs a change. @returns how many rows it touched */
export async function change(db: Db, sql: string, values: Value[] = []): Promise<number> {
  const [result] = await db.execute<ResultSetHeader>(sql, values).catch((error: unknown) => {
    throw told(error);
  });
  return result.affectedRows;
}

const TRIES = 3;

/** Runs `work` in a transaction; a deadlock, or a conflict between cluster nodes, is tried again from its start. */
export async function transaction<T>(pool: Pool, work: (db: Db) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const connection = await pool.getConnection().catch((error: unknown) => {
      throw told(error);
    });
    try {
      await connection.beginTransaction();
      const result = await work(connection);
      await connection.commit();
      connection.release();
      return result;
    } catch (error) {
      await connection.rollback().then(
        () => connection.release(),
        () => connection.destroy(),
      );
      if (codeOf(error) !== 'ER_LOCK_DEADLOCK' || attempt === TRIES) throw told(error);
    }
  }
}
