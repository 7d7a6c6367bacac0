import { readBuild } from '@flarik/core/rules/document';
import type { Build } from '@flarik/core/design/schema';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { BuildSummary, type SavedBuild } from '$lib/api';
import type { FindingCounts } from './countFindings';
import type { Counted } from './counting';
import { change, many, maybeOne, transaction, type Db } from './db';

export type SaveOutcome =
  | { readonly kind: 'saved'; readonly version: number; readonly savedAt: string }
  /** The save's id names an earlier one of other contents. */
  | { readonly kind: 'id taken' }
  | { readonly kind: 'stale'; readonly current: SavedBuild }
  | { readonly kind: 'missing' };

const Counts = BuildSummary.shape.findings;

const SummaryRow = z
  .strictObject({
    id: z.string(),
    name: z.string(),
    service: z.string(),
    body_type: z.string(),
    version: z.number(),
    findings: z.string().nullable(),
    counted_version: z.number(),
    updated_at: z.date(),
  })
  .transform((r): BuildSummary => ({
    id: r.id,
    name: r.name,
    service: r.service,
    bodyType: r.body_type,
    version: r.version,
    findings: r.findings === null ? null : Counts.parse(JSON.parse(r.findings)),
    counting: r.counted_version < r.version,
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
    `SELECT id, name, service, body_type, version, findings, counted_version, updated_at
       FROM build
      ORDER BY updated_at DESC, id`,
  );
}

/** A build as last saved; null when there is none of that id. */
export function findBuild(db: Db, id: string): Promise<SavedBuild | null> {
  return maybeOne(db, DocumentRow, 'SELECT document, version, updated_at FROM build WHERE id = ?', [id]);
}

const VersionRow = z.strictObject({ version: z.number() });

const now = (): Date => new Date();
const sqlTime = (date: Date): string => date.toISOString().slice(0, 23).replace('T', ' ');

/**
 * Stores a new build; one that was deleted goes on from the version it had.
 * @returns its version; null when the id is taken
 */
export function insertBuild(pool: Pool, build: Build, saveId: string): Promise<number | null> {
  return transaction(pool, async (db) => {
    const taken = await maybeOne(db, z.unknown(), 'SELECT 1 FROM build WHERE id = ? FOR UPDATE', [build.id]);
    if (taken !== null) return null;
    const gone = await maybeOne(db, VersionRow, 'SELECT version FROM build_gone WHERE id = ? FOR UPDATE', [
      build.id,
    ]);
    const version = (gone?.version ?? 0) + 1;
    const document = JSON.stringify(build);
    const at = sqlTime(now());
    await change(
      db,
      `INSERT INTO build (id, name, service, body_type, version, document, updated_at) VALUES (?, ?, ?, ?, ?, ?, ?)`,
      [build.id, build.name, build.service, build.vehicle.bodyType, version, document, at],
    );
    await insertRevision(db, build.id, version, saveId, document, at);
    return version;
  });
}

const insertRevision = (db: Db, id: string, version: number, saveId: string, document: string, at: string) =>
  change(
    db,
    `INSERT INTO build_revision (build_id, version, save_id, document, saved_at) VALUES (?, ?, ?, ?, ?)`,
    [id, version, saveId, document, at],
  );

const RevisionRow = z.strictObject({ version: z.number(), saved_at: z.date(), document: z.string() });

/**
 * Saves a build over the version it was based on. A stale save changes nothing and is told what stands there;
 * a save repeated under its own `saveId` is told what the first one did.
 */
export function saveBuild(pool: Pool, build: Build, basedOn: number, saveId: string): Promise<SaveOutcome> {
  return transaction(pool, async (db): Promise<SaveOutcome> => {
    const row = await maybeOne(db, VersionRow, 'SELECT version FROM build WHERE id = ? FOR UPDATE', [
      build.id,
    ]);
    if (row === null) return { kind: 'missing' };
    const done = await maybeOne(
      db,
      RevisionRow,
      'SELECT version, saved_at, document FROM build_revision WHERE build_id = ? AND save_id = ?',
      [build.id, saveId],
    );
    const document = JSON.stringify(build);
    if (done !== null)
      return done.document === document
        ? { kind: 'saved', version: done.version, savedAt: done.saved_at.toISOString() }
        : { kind: 'id taken' };
    if (row.version !== basedOn) {
      const current = await findBuild(db, build.id);
      return current === null ? { kind: 'missing' } : { kind: 'stale', current };
    }
    const version = basedOn + 1;
    const savedAt = now();
    await change(
      db,
      `UPDATE build
          SET name = ?, service = ?, body_type = ?, version = ?, document = ?, updated_at = ?
        WHERE id = ?`,
      [build.name, build.service, build.vehicle.bodyType, version, document, sqlTime(savedAt), build.id],
    );
    await insertRevision(db, build.id, version, saveId, document, sqlTime(savedAt));
    return { kind: 'saved', version, savedAt: savedAt.toISOString() };
  });
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
  if (row.version === basedOn || row.done === 1) return null;
  const current = await findBuild(db, id);
  return current === null ? { kind: 'missing' } : { kind: 'stale', current };
}

/** Keeps the count of a version, unless a newer one has been saved meanwhile. */
export const keepCounts = async (
  db: Db,
  { id, version }: Pick<Counted, 'id' | 'version'>,
  counts: FindingCounts | null,
): Promise<void> => {
  await change(db, 'UPDATE build SET findings = ?, counted_version = ? WHERE id = ? AND version = ?', [
    counts === null ? null : JSON.stringify(counts),
    version,
    id,
    version,
  ]);
};

/** The builds whose findings of the last version are not counted. */
export const uncounted = (db: Db): Promise<{ id: string }[]> =>
  many(db, z.strictObject({ id: z.string() }), 'SELECT id FROM build WHERE counted_version < version');

/** Takes a build and its revisions away; its last version is kept. @returns false when there was none */
export const deleteBuild = (pool: Pool, id: string): Promise<boolean> =>
  transaction(pool, async (db) => {
    const row = await maybeOne(db, VersionRow, 'SELECT version FROM build WHERE id = ? FOR UPDATE', [id]);
    if (row === null) return false;
    await change(
      db,
      `INSERT INTO build_gone (id, version, gone_at) VALUES (?, ?, ?)
       ON DUPLICATE KEY UPDATE version = VALUES(version), gone_at = VALUES(gone_at)`,
      [id, row.version, sqlTime(now())],
    );
    await change(db, 'DELETE FROM build WHERE id = ?', [id]);
    return true;
  });
