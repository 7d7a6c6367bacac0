import { readRulePack } from '@flarik/core/rules/document';
import type { RulePack } from '@flarik/core/design/rulePack';
import { z } from 'zod';
import { change, many, type Db } from './db';

const PackRow = z
  .strictObject({ document: z.string() })
  .transform((r): RulePack => readRulePack(JSON.parse(r.document)));

/** The shop's rule packs by name; [] when there are none. */
export const listRulePacks = (db: Db): Promise<RulePack[]> =>
  many(db, PackRow, 'SELECT document FROM rule_pack ORDER BY name, id');

/** Puts a pack on the shelf, in place of one with its id. */
export const putRulePack = (db: Db, pack: RulePack): Promise<number> =>
  change(
    db,
    `INSERT INTO rule_pack (id, name, document, updated_at) VALUES (?, ?, ?, UTC_TIMESTAMP(3))
     ON DUPLICATE KEY UPDATE name = VALUES(name), document = VALUES(document), updated_at = VALUES(updated_at)`,
    [pack.id, pack.name, JSON.stringify(pack)],
  );
