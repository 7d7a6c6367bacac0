import { setTimeout } from 'node:timers/promises';
import mysql, { type Pool, type PoolConnection } from 'mysql2/promise';
import { z } from 'zod';

/** The database cannot do what it is asked, through no fault of whoever asks; the message is fit to be shown. */
export abstract class DatabaseTrouble extends Error {}

/** The database cannot be reached just now. */
export class DatabaseDownError extends DatabaseTrouble {
  constructor(cause: unknown) {
    super('The database cannot be reached. Nothing was changed; try again in a moment.', { cause });
    this.name = 'DatabaseDownError';
  }
}

/** The database has more to do than it gets done. */
export class DatabaseBusyError extends DatabaseTrouble {
  constructor(cause: unknown) {
    super('The database is busy. Nothing was changed. Try again in a moment.', { cause });
    this.name = 'DatabaseBusyError';
  }
}

/** The database has no room left. */
export class DatabaseFullError extends DatabaseTrouble {
  constructor(cause: unknown) {
    super('The disk of the database is full. Nothing was changed. Make room, then try again.', { cause });
    this.name = 'DatabaseFullError';
  }
}

/** What a query runs on: the pool, or one connection inside a transaction. */
export type Db = Pool | PoolConnection;
type Value = string | number | null | Buffer;

/** A moment as the database writes it, UTC. */
export const sqlTime = (date: Date): string => date.toISOString().slice(0, 23).replace('T', ' ');

/** A row that another holds is waited for so long, s; and a free connection, ms. */
const LOCK_WAIT_S = 3;
const CONNECTION_WAIT_MS = 4000;

export function openPool(url: string): Pool {
  const pool = mysql.createPool({
    uri: url,
    timezone: 'Z',
    charset: 'utf8mb4',
    supportBigNumbers: true,
    connectionLimit: 10,
    queueLimit: 200,
    connectTimeout: 5000,
  });
  pool.on('connection', (connection) => {
    void connection.query(`SET SESSION innodb_lock_wait_timeout = ${LOCK_WAIT_S}`);
  });
  return pool;
}

/** A connection of the pool's, waited for no longer than is good for whoever waits on us. */
async function connect(pool: Pool): Promise<PoolConnection> {
  const coming = pool.getConnection();
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<null>((done) => {
    timer = globalThis.setTimeout(done, CONNECTION_WAIT_MS, null);
  });
  try {
    const connection = await Promise.race([coming, late]);
    if (connection !== null) return connection;
  } catch (error) {
    throw toDatabaseError(error);
  } finally {
    clearTimeout(timer);
  }
  // It may still come, with nobody to use it.
  void coming.then(
    (connection) => connection.release(),
    () => undefined,
  );
  throw new DatabaseBusyError(new Error(`no connection was free within ${CONNECTION_WAIT_MS} ms`));
}

/** Runs a statement on a connection; on one of the pool's when none is given. */
async function execute(db: Db, sql: string, values: Value[]): Promise<unknown> {
  const connection = 'getConnection' in db ? await connect(db) : db;
  try {
    const [result] = await connection.execute(sql, values);
    return result;
  } catch (error) {
    throw toDatabaseError(error);
  } finally {
    if (connection !== db) connection.release();
  }
}

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

const FULL = new Set([
  'ER_RECORD_FILE_FULL',
  'ER_DISK_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_TEMP_FILE_WRITE_FAILURE',
]);

/** So long after it was full the database is taken to be so still, unless it has stored something since, ms. */
const FULL_FOR_MS = 30_000;
let lastFull = -Infinity;

/** Whether the database had no room left when it was last to store something. */
export const wasFull = (): boolean => performance.now() - lastFull < FULL_FOR_MS;

const codeOf = (error: unknown): string =>
  z.looseObject({ code: z.string() }).catch({ code: '' }).parse(error).code;

function toDatabaseError(error: unknown): unknown {
  if (FULL.has(codeOf(error))) {
    lastFull = performance.now();
    return new DatabaseFullError(error);
  }
  if (LOST.has(codeOf(error))) return new DatabaseDownError(error);
  const queueFull = error instanceof Error && error.message === 'Queue limit reached.';
  return queueFull || codeOf(error) === 'ER_LOCK_WAIT_TIMEOUT' ? new DatabaseBusyError(error) : error;
}

/** Whether a row was refused for a key that another has. */
export const isTaken = (error: unknown): boolean => codeOf(error) === 'ER_DUP_ENTRY';

/** All rows, each parsed. */
export async function many<S extends z.ZodType>(db: Db, row: S, sql: string, values: Value[] = []) {
  return z.array(row).parse(await execute(db, sql, values));
}

/** The one row, or null. */
export async function maybeOne<S extends z.ZodType>(db: Db, row: S, sql: string, values: Value[] = []) {
  const [first] = await many(db, row, sql, values);
  return first ?? null;
}

const Changed = z.looseObject({ affectedRows: z.int() });

/** Runs a change. @returns how many rows it touched */
export const change = async (db: Db, sql: string, values: Value[] = []): Promise<number> =>
  Changed.parse(await execute(db, sql, values)).affectedRows;

const TRIES = 8;
/** Those that met in a deadlock try again after up to so long times the number of tries, ms. */
const APART_MS = 20;

/**
 * Runs `work` in a transaction; a deadlock, or a conflict between cluster nodes, is tried again from its start.
 * @throws {DatabaseBusyError} it met others again and again
 */
export async function transaction<T>(pool: Pool, work: (db: Db) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const connection = await connect(pool);
    try {
      await connection.beginTransaction();
      const result = await work(connection);
      await connection.commit();
      connection.release();
      lastFull = -Infinity;
      return result;
    } catch (error) {
      await connection.rollback().then(
        () => connection.release(),
        () => connection.destroy(),
      );
      if (codeOf(error) !== 'ER_LOCK_DEADLOCK') throw toDatabaseError(error);
      if (attempt === TRIES) throw new DatabaseBusyError(error);
      await setTimeout(Math.random() * APART_MS * attempt);
    }
  }
}
