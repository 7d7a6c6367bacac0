import type { Build } from '@flarik/core/design/schema';
import type { Pool } from 'mysql2/promise';
import { findBuild, keepCounts, uncounted } from './buildRepo';
import { readConfig } from './config';
import { Counting } from './counting';
import { openPool } from './db';
import { migrate } from './migrate';

let pool: Pool | null = null;
let counting: Counting | null = null;
let migrated: Promise<void> | null = null;

/**
 * The pool, with the database migrated. A failure is not remembered: the next request tries again.
 * @throws {DatabaseDownError} the database cannot be reached
 */
export async function database(): Promise<Pool> {
  pool ??= openPool(readConfig(process.env).DATABASE_URL);
  migrated ??= migrate(pool).then(countTheRest);
  try {
    await migrated;
  } catch (error) {
    migrated = null;
    throw error;
  }
  return pool;
}

/** The thread that counts findings for the list of builds. */
function counter(): Counting {
  counting ??= new Counting(async (of, counts) => keepCounts(await database(), of, counts));
  return counting;
}

/** Has the findings of a saved version counted, in its own time. */
export const countLater = (build: Build, version: number): void =>
  counter().ask({ id: build.id, version, document: JSON.stringify(build) });

/** What an earlier run of the server had not counted yet. */
async function countTheRest(): Promise<void> {
  if (pool === null) return;
  for (const { id } of await uncounted(pool)) {
    const saved = await findBuild(pool, id).catch(() => null);
    if (saved !== null) countLater(saved.build, saved.version);
  }
}

/** An open pool would keep the process alive, and so would a thread at work. */
export async function closeDatabase(): Promise<void> {
  const [open, thread] = [pool, counting];
  pool = null;
  counting = null;
  migrated = null;
  await thread?.end();
  await open?.end();
}
