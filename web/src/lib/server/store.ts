import type { Pool } from 'mysql2/promise';
import type { BuildSummary } from '$lib/api';
import { findBuild, isThere, keepDigest, listBuilds, undigested } from './buildRepo';
import { readConfig } from './config';
import { Digesting } from './digesting';
import { openPool } from './db';
import { log } from './log';
import type { Filed } from './filed';
import { migrate } from './migrate';
import type { ReadJob } from './read';
import { Reading } from './reading';
import { clockOf, noteStart, thinRevisions } from './revisionRepo';

let pool: Pool | null = null;
let digesting: Digesting | null = null;
let readingSaves: Reading | null = null;
let readingImports: Reading | null = null;
let migrated: Promise<void> | null = null;

/** Revisions are thinned out as often as this, ms. */
const THIN_EVERY_MS = 3_600_000;
let thinning: NodeJS.Timeout | null = null;

/** Lets old revisions go; a failure is told, and the next hour tries again. */
async function thin(): Promise<void> {
  if (pool === null) return;
  try {
    const gone = await thinRevisions(pool, await clockOf(pool, process.uptime() * 1000));
    if (gone === null)
      log.warn(
        'revisions are not thinned out for a day: the clock is more than two days ahead of the last time',
      );
  } catch (error) {
    log.error({ err: error }, 'revisions could not be thinned out');
  }
}

/** Migrations run by the user who may change tables, where there is one apart from the app's. */
async function migrateFirst(app: Pool): Promise<void> {
  const url = readConfig(process.env).MIGRATION_DATABASE_URL;
  if (url === undefined) return migrate(app);
  const own = openPool(url);
  try {
    await migrate(own);
  } finally {
    await own.end();
  }
}

/**
 * The pool, with the database migrated. A failure is not remembered: the next request tries again.
 * @throws {DatabaseDownError} the database cannot be reached
 */
export async function database(): Promise<Pool> {
  pool ??= openPool(readConfig(process.env).DATABASE_URL);
  migrated ??= migrateFirst(pool).then(async () => {
    await digestTheRest();
    if (pool !== null) await noteStart(pool);
    thinning ??= setInterval(() => void thin(), THIN_EVERY_MS).unref();
    void thin();
  });
  try {
    await migrated;
  } catch (error) {
    migrated = null;
    throw error;
  }
  return pool;
}

/** The thread that makes what the list of builds shows. */
function digester(): Digesting {
  digesting ??= new Digesting(async (of, digest) => keepDigest(await database(), of, digest));
  return digesting;
}

/**
 * The threads that read what comes in. Imports, and saves much larger than builds are, have threads of their own: a save
 * does not wait behind a file that takes long.
 */
function readerOf(unread: ReadJob): Reading {
  if (unread.as === 'text' || unread.text.length > LONG_SAVE)
    return (readingImports ??= new Reading({ keepWarm: false }));
  return (readingSaves ??= new Reading());
}
/** Characters; the fullest demo build has some 130,000. */
const LONG_SAVE = 600_000;

/** Has the findings of a saved version counted and its picture made, in its own time. */
export const digestLater = ({ id, document }: Filed, version: number): void =>
  digester().ask({ id, version, document });

/**
 * Reads a build from outside.
 * @throws {InputError} what is wrong and where
 */
export const readUnread = (unread: ReadJob): Promise<Filed> => readerOf(unread).read(unread);

/** The list of builds, for somebody who looks at it: what it does not know yet is found out now. */
export async function lookAtBuilds(): Promise<BuildSummary[]> {
  const db = await database();
  digester().hurry();
  return listBuilds(db);
}

/** Whether there is a build of that id. */
export const hasBuild = async (id: string): Promise<boolean> => isThere(await database(), id);

/** A build that is deleted needs no digest. */
export const skipDigest = (id: string): void => digester().drop(id);

/** What an earlier run of the server had not done yet. */
async function digestTheRest(): Promise<void> {
  if (pool === null) return;
  for (const { id } of await undigested(pool)) {
    const saved = await findBuild(pool, id).catch(() => null);
    if (saved !== null) digester().ask({ id, version: saved.version, document: JSON.stringify(saved.build) });
  }
}

/** An open pool would keep the process alive, and so would a thread at work. */
export async function closeDatabase(): Promise<void> {
  const [open, digests, saves, imports] = [pool, digesting, readingSaves, readingImports];
  pool = null;
  digesting = null;
  readingSaves = null;
  readingImports = null;
  migrated = null;
  if (thinning !== null) clearInterval(thinning);
  thinning = null;
  await digests?.end();
  await Promise.all([saves?.end(), imports?.end()]);
  await open?.end();
}
