import type { Pool } from 'mysql2/promise';
import { readConfig } from './config';
import { openPool } from './db';
import { migrate } from './migrate';

let pool: Pool | null = null;
let migrated: Promise<void> | null = null;

/**
 * The pool, with the database migrated. A failure is not remembered: the next request tries again.
 * @throws {DatabaseDownError} the database cannot be reached
 */
export async function database(): Promise<Pool> {
  pool ??= openPool(readConfig(process.env).DATABASE_URL);
  migrated ??= migrate(pool);
  try {
    await migrated;
  } catch (error) {
    migrated = null;
    throw error;
  }
  return pool;
}

/** An open pool would keep the process alive. */
export async function closeDatabase(): Promise<void> {
  const open = pool;
  pool = null;
  migrated = null;
  await open?.end();
}
