import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { many, openPool } from '../db';
import { isKnown, migrate, MIGRATIONS, type Migration } from '../migrate';
import type { Contents } from './checkContents';
import { fill } from './fill';
import { BackupError, SwapError, type Head } from './format';
import { liftVersions } from './liftVersions';
import { readBackup } from './readBackup';
import { asideName, countBuilds, createSchema, dropSchema, putAside, swap, tablesOf } from './swap';

/** A replaced database is kept for so long at least, ms. */
const KEPT_MS = 24 * 3_600_000;

export interface Restored extends Contents {
  /** The database that now holds what was replaced; null when there was nothing. */
  readonly aside: string | null;
}

export interface RestoreOptions {
  readonly replace: boolean;
  readonly trust: boolean;
  readonly tell: (done: number, of: number) => void;
}

/** The database that a URL names, and the URL of another one beside it. */
const schemaOf = (url: string): string => new URL(url).pathname.slice(1);
function urlOf(url: string, schema: string): string {
  const other = new URL(url);
  other.pathname = `/${schema}`;
  return other.href;
}

/**
 * Puts a backup into a database: read into one beside it first, checked there, then put in its place. Nothing is
 * changed when anything fails on the way.
 * @param url - of the database
 * @throws {BackupError} why it was not restored
 */
export async function restore(
  url: string,
  file: string,
  secret: string,
  { replace, trust, tell }: RestoreOptions,
): Promise<Restored> {
  const { isSigned, head } = await readBackup(file, secret);
  if (!isSigned && !trust)
    throw new BackupError(
      `${file} is not signed with this server's secret: another server made it, or it was changed. If you trust where it comes from, add --trust.`,
    );
  const known = migrationsOf(file, head);
  const schema = schemaOf(url);
  const beside = `${schema}_restoring`;
  const db = openPool(urlOf(url, ''));
  const prepare = async (): Promise<Contents> => {
    const contents = await fill(urlOf(url, beside), file, { secret, head, known, tell });
    await liftVersions(db, schema, beside);
    return contents;
  };
  try {
    await refuseUse(db, schema, 'is in use. Stop the app');
    await refuseUse(db, beside, 'is being filled by another restore. Wait for it');
    const builds = await countBuilds(db, schema);
    if (builds > 0 && !replace)
      throw new BackupError(
        `The database '${schema}' contains ${builds} builds. Add --replace to put the backup in their place.`,
      );
    await dropSchema(db, beside);
    await createSchema(db, beside);
    const contents = await prepare().catch(async (error: unknown) => {
      await dropSchema(db, beside);
      throw error;
    });
    const aside = await putInPlace(db, schema, beside, contents.builds);
    await forget(db, schema, new Date());
    return { ...contents, aside };
  } finally {
    await db.end();
  }
}

/** Brings back what was replaced last; what stands there now is put aside in its turn. */
export async function undoRestore(url: string): Promise<{ aside: string | null; builds: number }> {
  const schema = schemaOf(url);
  const db = openPool(urlOf(url, ''));
  try {
    await refuseUse(db, schema, 'is in use. Stop the app');
    const last = await lastAside(db, schema);
    if (last === null) throw new BackupError(`No replaced database of '${schema}' is kept.`);
    const back = openPool(urlOf(url, last));
    try {
      await migrate(back);
    } finally {
      await back.end();
    }
    await liftVersions(db, schema, last);
    const builds = await countBuilds(db, last);
    const aside = await putInPlace(db, schema, last, builds);
    return { aside, builds };
  } finally {
    await db.end();
  }
}

/**
 * Swaps, counts what stands there then, and swaps back when it is not what it should be.
 * @param builds - so many must be counted
 * @returns the name of the database that now holds what was replaced; null when there was nothing
 * @throws {SwapError} it is not known whether the tables changed places
 */
async function putInPlace(
  db: Pool,
  schema: string,
  incoming: string,
  builds: number,
): Promise<string | null> {
  await refuseUse(db, schema, 'is in use. Stop the app');
  const aside = await asideName(db, schema);
  await createSchema(db, aside);
  try {
    await swap(db, schema, incoming, aside);
    const counted = await countBuilds(db, schema);
    if (counted === builds) {
      if ((await tablesOf(db, aside)).length > 0) return aside;
      await dropSchema(db, aside);
      return null;
    }
    await swap(db, schema, aside, incoming);
  } catch (error) {
    throw new SwapError(aside, error);
  }
  throw new BackupError('After the swap the builds were not all there, so it was reversed.');
}

/** @throws {BackupError} another program, as the app, is connected to the database */
async function refuseUse(db: Pool, schema: string, why: string): Promise<void> {
  const others = await many(
    db,
    z.unknown(),
    'SELECT 1 FROM information_schema.processlist WHERE db = ? AND id <> CONNECTION_ID()',
    [schema],
  );
  if (others.length > 0) throw new BackupError(`The database '${schema}' ${why}, then try again.`);
}

/** The database that was put aside last; null when there is none. One without tables was left by a killed restore. */
async function lastAside(db: Pool, schema: string): Promise<string | null> {
  for (const { name } of (await putAside(db, schema)).toReversed())
    if ((await tablesOf(db, name)).length > 0) return name;
  return null;
}

/** Drops what was replaced more than a day ago. */
async function forget(db: Pool, schema: string, now: Date): Promise<void> {
  for (const { name, at } of await putAside(db, schema))
    if (now.getTime() - at.getTime() > KEPT_MS) await dropSchema(db, name);
}

/** The migrations that the backup's rows fit. */
function migrationsOf(file: string, { migrations }: Head): readonly Migration[] {
  for (const [i, applied] of migrations.entries()) {
    const known = MIGRATIONS[i];
    if (known?.number !== applied.number || !isKnown(applied))
      throw new BackupError(
        `${file} was made by another version of Flarik: this one does not know its migration ${applied.name}.`,
      );
  }
  return MIGRATIONS.slice(0, migrations.length);
}
