import { readRulePack } from '@flarik/core/rules/document';
import type { RulePack } from '@flarik/core/design/rulePack';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import type { PackVersion } from '$lib/api';
import { change, many, maybeOne, transaction, type Db } from './db';

const PackRow = z
  .strictObject({ document: z.string() })
  .transform((r): RulePack => readRulePack(JSON.parse(r.document)));

/** So many versions of a pack are kept; the oldest go first. */
const MOST_VERSIONS = 50;

/** The shop's rule packs by name; [] when there are none. */
export const listRulePacks = (db: Db): Promise<RulePack[]> =>
  many(db, PackRow, 'SELECT document FROM rule_pack ORDER BY name, id');

const VersionRow = z
  .strictObject({ version: z.int(), saved_at: z.date(), document: z.string() })
  .transform((r): PackVersion => ({
    version: r.version,
    savedAt: r.saved_at.toISOString(),
    pack: readRulePack(JSON.parse(r.document)),
  }));

/** Every version of a pack that was put on the shelf, the newest first; [] when there is no such pack. */
export const packVersions = (db: Db, id: string): Promise<PackVersion[]> =>
  many(
    db,
    VersionRow,
    'SELECT version, saved_at, document FROM rule_pack_version WHERE pack_id = ? ORDER BY version DESC',
    [id],
  );

/** Puts a pack on the shelf, in place of one with its id, whose versions stay. One that says the same is no new version. */
export const putRulePack = (pool: Pool, pack: RulePack): Promise<void> =>
  transaction(pool, async (db) => {
    const document = JSON.stringify(pack);
    await change(
      db,
      `INSERT INTO rule_pack (id, name, document, updated_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3))
       ON DUPLICATE KEY UPDATE name = VALUES(name), document = VALUES(document), updated_at = VALUES(updated_at)`,
      [pack.id, pack.name, document],
    );
    const last = await maybeOne(
      db,
      z.strictObject({ version: z.int(), document: z.string() }),
      'SELECT version, document FROM rule_pack_version WHERE pack_id = ? ORDER BY version DESC LIMIT 1',
      [pack.id],
    );
    if (last?.document === document) return;
    const version = (last?.version ?? 0) + 1;
    await change(
      db,
      'INSERT INTO rule_pack_version (pack_id, version, document, saved_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3))',
      [pack.id, version, document],
    );
    await change(db, 'DELETE FROM rule_pack_version WHERE pack_id = ? AND version <= ?', [
      pack.id,
      version - MOST_VERSIONS,
    ]);
  });
