import { readBuild } from '@flarik/core/rules/document';
import type { Build } from '@flarik/core/design/schema';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import type { BuildSummary, SavedBuild } from '$lib/api';
import { change, many, maybeOne, transaction, type Db } from './db';

/** How many findings a build has, for the list. */
export interface FindingCounts {
  readonly blocking: number;
  readonly other: number;
}

export type SaveOutcome =
  | { readonly kind: 'saved'; readonly version: number; readonly savedAt: string }
  | { readonly kind: 'stale'; readonly current: SavedBuild }
  | { readonly kind: 'missing' };

const SummaryRow = z
  .strictObject({
    id: z.string(),
    name: z.string(),
    service: z.string(),
    body_type: z.string(),
    version: z.number(),
    findings_blocking: z.number(),
    findings_other: z.number(),
    updated_at: z.date(),
  })
  .transform((r): BuildSummary => ({
    id: r.id,
    name: r.name,
    service: r.service,
    bodyType: r.body_type,
    version: r.version,
    findingsBlocking: r.findings_blocking,
    findingsOther: r.findings_other,
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
    `SELECT id, name, service, body_type, version, findings_blocking, findings_other, updated_at
       FROM build
      ORDER BY updated_at DESC, id`,
  );
}

/** A build as last saved; null when there is none of that id. */
export function findBuild(db: Db, id: string): Promise<SavedBuild | null> {
  return maybeOne(db, DocumentRow, 'SELECT document, version, updated_at FROM build WHERE id = ?', [id]);
}

const now = (): Date => new Date();
const sqlTime = (date: Date): string => date.toISOString().slice(0, 23).replace('T', ' ');

/** Stores a new build as version 1. @returns false when the id is taken */
export function insertBuild(
  pool: Pool,
  build: Build,
  counts: FindingCounts,
  saveId: string,
): Promise<boolean> {
  return transaction(pool, async (db) => {
    const taken = await maybeOne(db, z.unknown(), 'SELECT 1 FROM build WHERE id = ? FOR UPDATE', [build.id]);
    if (taken !== null) return false;
    const document = JSON.stringify(build);
    const at = sqlTime(now());
    await change(
      db,
      `INSERT INTO build
         (id, name, service, body_type, version, findings_blocking, findings_other, document, updated_at)
       VALUES (?, ?, ?, ?, 1, ?, ?, ?, ?)`,
      [
        build.id,
        build.name,
        build.service,
        build.vehicle.bodyType,
        counts.blocking,
        counts.other,
        document,
        at,
      ],
    );
    await insertRevision(db, build.id, 1, saveId, document, at);
    return true;
  });
}

const insertRevision = (db: Db, id: string, version: number, saveId: string, document: string, at: string) =>
  change(
    db,
    `INSERT INTO build_revision (build_id, version, save_id, document, saved_at) VALUES (?, ?, ?, ?, ?)`,
    [id, version, saveId, document, at],
  );

const VersionRow = z.strictObject({ version: z.number() });
const RevisionRow = z.strictObject({ version: z.number(), saved_at: z.date() });

/**
 * Saves a build over the version it was based on. A stale save changes nothing and is told what stands there;
 * a save repeated under its own `saveId` is told what the first one did.
 */
export function saveBuild(
  pool: Pool,
  build: Build,
  basedOn: number,
  saveId: string,
  counts: FindingCounts,
): Promise<SaveOutcome> {
  return transaction(pool, async (db): Promise<SaveOutcome> => {
    const row = await maybeOne(db, VersionRow, 'SELECT version FROM build WHERE id = ? FOR UPDATE', [
      build.id,
    ]);
    if (row === null) return { kind: 'missing' };
    const done = await maybeOne(
      db,
      RevisionRow,
      'SELECT version, saved_at FROM build_revision WHERE build_id = ? AND save_id = ?',
      [build.id, saveId],
    );
    if (done !== null) return { kind: 'saved', version: done.version, savedAt: done.saved_at.toISOString() };
    if (row.version !== basedOn) {
      const current = await findBuild(db, build.id);
      return current === null ? { kind: 'missing' } : { kind: 'stale', current };
    }
    const version = basedOn + 1;
    const savedAt = now();
    const document = JSON.stringify(build);
    await change(
      db,
      `UPDATE build
          SET name = ?, service = ?, body_type = ?, version = ?, findings_blocking = ?, findings_other = ?,
              document = ?, updated_at = ?
        WHERE id = ?`,
      [
        build.name,
        build.service,
        build.vehicle.bodyType,
        version,
        counts.blocking,
        counts.other,
        document,
        sqlTime(savedAt),
        build.id,
      ],
    );
    await insertRevision(db, build.id, version, saveId, document, sqlTime(savedAt));
    return { kind: 'saved', version, savedAt: savedAt.toISOString() };
  });
}

/** Takes a build and its revisions away. @returns false when there was none */
export const deleteBuild = async (db: Db, id: string): Promise<boolean> =>
  (await change(db, 'DELETE FROM build WHERE id = ?', [id])) > 0;
