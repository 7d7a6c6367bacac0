import { readBuild } from '@flarik/core/rules/document';
import { BUILD_FORMAT, SCHEMA_VERSION } from '@flarik/core/design/schema';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { BuildSummary, type SavedBuild } from '$lib/api';
import type { Digest } from './digest';
import type { Digested } from './digesting';
import { change, isTaken, many, maybeOne, sqlTime, transaction, type Db } from './db';
import type { Filed } from './filed';
import { findSave, insertRevision, type SaveNote } from './revisionRepo';

/** A build as it stands, in the way of a stale save: the JSON text of a SavedBuild, and what is said of it. */
export interface StoredBuild {
  readonly name: string;
  readonly version: number;
  readonly text: string;
}

export type SaveOutcome =
  | { readonly kind: 'saved'; readonly version: number; readonly savedAt: string }
  /** The save's id names an earlier one of other contents. */
  | { readonly kind: 'id taken' }
  | { readonly kind: 'stale'; readonly current: StoredBuild }
  | { readonly kind: 'missing' };

const { findings: Counts, jurisdictions: Jurisdictions } = BuildSummary.shape;

const SummaryRow = z
  .strictObject({
    id: z.string(),
    name: z.string(),
    service: z.string(),
    body_type: z.string(),
    jurisdictions: z.string(),
    version: z.number(),
    findings: z.string().nullable(),
    counted_version: z.number(),
    picture_key: z.string().nullable(),
    archived_at: z.date().nullable(),
    updated_at: z.date(),
  })
  .transform((r): BuildSummary => ({
    id: r.id,
    name: r.name,
    service: r.service,
    bodyType: r.body_type,
    jurisdictions: Jurisdictions.parse(JSON.parse(r.jurisdictions)),
    version: r.version,
    findings: r.findings === null ? null : Counts.parse(JSON.parse(r.findings)),
    counting: r.counted_version < r.version,
    pictureKey: r.picture_key,
    archived: r.archived_at !== null,
    updatedAt: r.updated_at.toISOString(),
  }));

const DocumentRow = z
  .strictObject({ document: z.string(), version: z.number(), updated_at: z.date() })
  .transform((r): SavedBuild => ({
    build: readBuild(JSON.parse(r.document)),
    version: r.version,
    savedAt: r.updated_at.toISOString(),
  }));

/** All builds, the newest work first; [] when there are none. */
export function listBuilds(db: Db): Promise<BuildSummary[]> {
  return many(
    db,
    SummaryRow,
    `SELECT id, name, service, body_type, jurisdictions, version, findings, counted_version, picture_key,
            archived_at, updated_at
       FROM build
      ORDER BY updated_at DESC, id`,
  );
}

/** The picture of a build, as the JSON text of a BuildPicture, and its name; null when there is none yet. */
export function findPicture(db: Db, id: string): Promise<{ text: string; key: string } | null> {
  const row = z
    .strictObject({ picture: z.string(), picture_key: z.string() })
    .transform((r) => ({ text: r.picture, key: r.picture_key }));
  return maybeOne(db, row, 'SELECT picture, picture_key FROM build WHERE id = ? AND picture IS NOT NULL', [
    id,
  ]);
}

/** A build as last saved; null when there is none of that id. */
export function findBuild(db: Db, id: string): Promise<SavedBuild | null> {
  return maybeOne(db, DocumentRow, 'SELECT document, version, updated_at FROM build WHERE id = ?', [id]);
}

/** Whether there is a build of that id. */
export const isThere = async (db: Db, id: string): Promise<boolean> =>
  (await maybeOne(db, z.unknown(), 'SELECT 1 FROM build WHERE id = ?', [id])) !== null;

/** How a document begins that is of today's schema and was written by us. */
const TODAYS = `{"format":"${BUILD_FORMAT}","schemaVersion":${SCHEMA_VERSION},`;

/**
 * A build as last saved, as the JSON text of a SavedBuild: one of today's schema goes out as it was stored, for it was
 * parsed when it came in; an older one is read first. Null when there is none of that id.
 */
export async function findStanding(db: Db, id: string): Promise<StoredBuild | null> {
  const row = await maybeOne(
    db,
    z.strictObject({ name: z.string(), document: z.string(), version: z.number(), updated_at: z.date() }),
    'SELECT name, document, version, updated_at FROM build WHERE id = ?',
    [id],
  );
  if (row === null) return null;
  const { name, document, version, updated_at: at } = row;
  const build = document.startsWith(TODAYS) ? document : JSON.stringify(readBuild(JSON.parse(document)));
  const text = `{"build":${build},"version":${version},"savedAt":${JSON.stringify(at.toISOString())}}`;
  return { name, version, text };
}

const VersionRow = z.strictObject({ version: z.number() });

/**
 * Stores a new build; one that was deleted goes on from the version it had.
 * @returns its version; null when the id is taken
 */
export async function insertBuild(pool: Pool, build: Filed, note: SaveNote): Promise<number | null> {
  try {
    return await insertAnew(pool, build, note);
  } catch (error) {
    // Another one with its id came first, just now.
    if (isTaken(error)) return null;
    throw error;
  }
}

const insertAnew = (pool: Pool, build: Filed, note: SaveNote): Promise<number | null> =>
  transaction(pool, async (db) => {
    const taken = await maybeOne(db, z.unknown(), 'SELECT 1 FROM build WHERE id = ? FOR UPDATE', [build.id]);
    if (taken !== null) return null;
    const gone = await maybeOne(db, VersionRow, 'SELECT version FROM build_gone WHERE id = ? FOR UPDATE', [
      build.id,
    ]);
    const version = (gone?.version ?? 0) + 1;
    const at = new Date();
    await change(
      db,
      `INSERT INTO build (id, name, service, body_type, jurisdictions, version, document, updated_at)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
      [
        build.id,
        build.name,
        build.service,
        build.bodyType,
        JSON.stringify(build.jurisdictions),
        version,
        build.document,
        sqlTime(at),
      ],
    );
    await insertRevision(db, build, version, note, at);
    return version;
  });

/**
 * Saves a build over the version it was based on. A stale save changes nothing and is told what stands there;
 * a save repeated under its own `saveId` is told what the first one did.
 */
export async function saveBuild(
  pool: Pool,
  build: Filed,
  basedOn: number,
  note: SaveNote,
): Promise<SaveOutcome> {
  const version = basedOn + 1;
  const at = new Date();
  try {
    if (await putOver(pool, build, version, note, at))
      return { kind: 'saved', version, savedAt: at.toISOString() };
  } catch (error) {
    // Its id names an earlier save.
    if (!isTaken(error)) throw error;
  }
  const done = await findSave(pool, build.id, note.saveId);
  if (done === null) return stale(pool, build.id);
  return done.document === build.document
    ? { kind: 'saved', version: done.version, savedAt: done.savedAt }
    : { kind: 'id taken' };
}

/** Puts a version over the one before it, as a revision too. @returns false when that is not the last */
const putOver = (pool: Pool, build: Filed, version: number, note: SaveNote, at: Date): Promise<boolean> =>
  transaction(pool, async (db) => {
    const there = await change(
      db,
      `UPDATE build
          SET name = ?, service = ?, body_type = ?, jurisdictions = ?, version = ?, document = ?, updated_at = ?
        WHERE id = ? AND version = ?`,
      [
        build.name,
        build.service,
        build.bodyType,
        JSON.stringify(build.jurisdictions),
        version,
        build.document,
        sqlTime(at),
        build.id,
        version - 1,
      ],
    );
    if (there === 0) return false;
    await insertRevision(db, build, version, note, at);
    return true;
  });

async function stale(db: Db, id: string): Promise<SaveOutcome> {
  const current = await findStanding(db, id);
  return current === null ? { kind: 'missing' } : { kind: 'stale', current };
}

/**
 * What a save would be told without looking at its contents: that there is no such build, or that it is stale.
 * @returns null when it may go on
 */
export async function staleSave(
  db: Db,
  id: string,
  basedOn: number,
  saveId: string,
): Promise<SaveOutcome | null> {
  const row = await maybeOne(
    db,
    z.strictObject({ version: z.number(), done: z.number() }),
    `SELECT version, EXISTS (SELECT 1 FROM build_revision WHERE build_id = build.id AND save_id = ?) AS done
       FROM build
      WHERE id = ?`,
    [saveId, id],
  );
  if (row === null) return { kind: 'missing' };
  return row.version === basedOn || row.done === 1 ? null : stale(db, id);
}

/** Keeps the digest of a version, unless a newer one has been saved meanwhile. */
export const keepDigest = async (
  db: Db,
  { id, version }: Pick<Digested, 'id' | 'version'>,
  digest: Digest | null,
): Promise<void> => {
  await change(
    db,
    'UPDATE build SET findings = ?, picture = ?, counted_version = ? WHERE id = ? AND version = ?',
    [
      digest === null ? null : JSON.stringify(digest.findings),
      digest === null ? null : JSON.stringify(digest.picture),
      version,
      id,
      version,
    ],
  );
};

/** The builds whose last version is not digested. */
export const undigested = (db: Db): Promise<{ id: string }[]> =>
  many(db, z.strictObject({ id: z.string() }), 'SELECT id FROM build WHERE counted_version < version');

/** Puts a build away, or brings it back; it stays as it is. @returns false when there is none */
export async function archiveBuild(db: Db, id: string, archived: boolean): Promise<boolean> {
  const there = await maybeOne(db, VersionRow, 'SELECT version FROM build WHERE id = ?', [id]);
  await change(db, 'UPDATE build SET archived_at = ? WHERE id = ?', [
    archived ? sqlTime(new Date()) : null,
    id,
  ]);
  return there !== null;
}

/** Takes a build and its revisions away; its last version is kept. @returns false when there was none */
export const deleteBuild = (pool: Pool, id: string): Promise<boolean> =>
  transaction(pool, async (db) => {
    const row = await maybeOne(db, VersionRow, 'SELECT version FROM build WHERE id = ? FOR UPDATE', [id]);
    if (row === null) return false;
    await change(
      db,
      `INSERT INTO build_gone (id, version, gone_at) VALUES (?, ?, ?)
       ON DUPLICATE KEY UPDATE version = VALUES(version), gone_at = VALUES(gone_at)`,
      [id, row.version, sqlTime(new Date())],
    );
    await change(db, 'DELETE FROM build WHERE id = ?', [id]);
    return true;
  });
