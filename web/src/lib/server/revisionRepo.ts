import { readBuild } from '@flarik/core/rules/document';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import type { Revision, SavedBuild } from '$lib/api';
import { change, many, maybeOne, sqlTime, type Db } from './db';
import type { Filed } from './filed';
import { unpack } from './packed';
import { isLeap, revisionsToDelete, type Clock } from './thinning';

/** What is put down of a save besides the document. */
export interface SaveNote {
  /** Names the save, so that a repeated one does nothing twice. */
  readonly saveId: string;
  /** What changed, in one line. */
  readonly changed: string;
}

export const insertRevision = (
  db: Db,
  { id, packed, bytes }: Filed,
  version: number,
  { saveId, changed }: SaveNote,
  savedAt: Date,
): Promise<number> =>
  change(
    db,
    `INSERT INTO build_revision (build_id, version, save_id, packed, bytes, changed, saved_at)
     VALUES (?, ?, ?, ?, ?, ?, ?)`,
    [id, version, saveId, packed, bytes, changed, sqlTime(savedAt)],
  );

const PackedRow = z.strictObject({ version: z.number(), saved_at: z.date(), packed: z.instanceof(Buffer) });

/** What was saved under a save's id; null when there is no such save. */
export async function findSave(
  db: Db,
  buildId: string,
  saveId: string,
): Promise<{ version: number; savedAt: string; document: string } | null> {
  const row = await maybeOne(
    db,
    PackedRow,
    'SELECT version, saved_at, packed FROM build_revision WHERE build_id = ? AND save_id = ?',
    [buildId, saveId],
  );
  return row === null
    ? null
    : { version: row.version, savedAt: row.saved_at.toISOString(), document: await unpack(row.packed) };
}

const RevisionRow = z
  .strictObject({
    version: z.number(),
    saved_at: z.date(),
    bytes: z.number(),
    changed: z.string(),
    name: z.string().nullable(),
  })
  .transform((r): Revision => ({
    version: r.version,
    savedAt: r.saved_at.toISOString(),
    bytes: r.bytes,
    changed: r.changed,
    name: r.name,
  }));

/** The revisions of a build, the newest first; [] when there is no such build. */
export const listRevisions = (db: Db, buildId: string): Promise<Revision[]> =>
  many(
    db,
    RevisionRow,
    'SELECT version, saved_at, bytes, changed, name FROM build_revision WHERE build_id = ? ORDER BY version DESC',
    [buildId],
  );

/** A build as it was saved once; null when there is no such revision, or none any more. */
export async function findRevision(db: Db, buildId: string, version: number): Promise<SavedBuild | null> {
  const row = await maybeOne(
    db,
    PackedRow,
    'SELECT version, saved_at, packed FROM build_revision WHERE build_id = ? AND version = ?',
    [buildId, version],
  );
  return row === null
    ? null
    : {
        build: readBuild(JSON.parse(await unpack(row.packed))),
        version: row.version,
        savedAt: row.saved_at.toISOString(),
      };
}

/** Names a revision, which is then kept for ever; null takes its name away. @returns false when there is none */
export async function nameRevision(
  db: Db,
  buildId: string,
  version: number,
  name: string | null,
): Promise<boolean> {
  const there = await maybeOne(
    db,
    z.unknown(),
    'SELECT 1 FROM build_revision WHERE build_id = ? AND version = ?',
    [buildId, version],
  );
  await change(db, 'UPDATE build_revision SET name = ? WHERE build_id = ? AND version = ?', [
    name,
    buildId,
    version,
  ]);
  return there !== null;
}

const AgedRow = z
  .strictObject({ version: z.number(), saved_at: z.date(), named: z.number() })
  .transform((r) => ({ version: r.version, savedAt: r.saved_at, named: r.named === 1 }));

const Moment = z.strictObject({ at: z.date() });

/** So many starts are remembered; the third last is asked about. */
const STARTS_KEPT = 10;

/** Puts down that a server starts now, by the database's clock. */
export async function noteStart(db: Db): Promise<void> {
  await change(db, 'INSERT INTO app_start (started_at) VALUES (UTC_TIMESTAMP(3))');
  await change(
    db,
    `DELETE FROM app_start WHERE id + ${STARTS_KEPT} <= (SELECT last FROM (SELECT MAX(id) AS last FROM app_start) AS ids)`,
  );
}

/** What the database knows of the time. @param upMs - so long this server has run */
export async function clockOf(db: Db, upMs: number): Promise<Clock> {
  const now = await maybeOne(db, Moment, 'SELECT UTC_TIMESTAMP(3) AS at');
  const last = await maybeOne(
    db,
    z.strictObject({ at: z.date().nullable() }),
    `SELECT MAX(at) AS at FROM (
       SELECT last_at AS at FROM thinned
       UNION ALL (SELECT started_at AS at FROM app_start ORDER BY id DESC LIMIT 1 OFFSET 1)
     ) AS seen`,
  );
  const third = await maybeOne(
    db,
    Moment,
    'SELECT started_at AS at FROM app_start ORDER BY id DESC LIMIT 1 OFFSET 2',
  );
  return {
    now: now?.at ?? new Date(),
    upMs,
    lastSeen: last?.at ?? null,
    thirdLastStart: third?.at ?? null,
  };
}

/**
 * Lets old revisions of every build go as `revisionsToDelete` says, and puts down when.
 * @returns how many went; null when the clock has leapt and nothing was looked at
 */
export async function thinRevisions(pool: Pool, clock: Clock): Promise<number | null> {
  if (isLeap(clock)) return null;
  const builds = await many(pool, z.strictObject({ id: z.string() }), 'SELECT id FROM build');
  let gone = 0;
  for (const { id } of builds) {
    const revisions = await many(
      pool,
      AgedRow,
      'SELECT version, saved_at, name IS NOT NULL AS named FROM build_revision WHERE build_id = ?',
      [id],
    );
    for (const version of revisionsToDelete(revisions, clock)) gone += await dropUnnamed(pool, id, version);
  }
  await change(
    pool,
    'INSERT INTO thinned (id, last_at) VALUES (1, ?) ON DUPLICATE KEY UPDATE last_at = VALUES(last_at)',
    [sqlTime(clock.now)],
  );
  return gone;
}

/** Lets a revision go, unless somebody has named it since it was looked at. @returns how many went */
export const dropUnnamed = (db: Db, buildId: string, version: number): Promise<number> =>
  change(db, 'DELETE FROM build_revision WHERE build_id = ? AND version = ? AND name IS NULL', [
    buildId,
    version,
  ]);
