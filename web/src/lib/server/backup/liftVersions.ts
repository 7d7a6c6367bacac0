import type { Pool } from 'mysql2/promise';
import { change } from '../db';
import { tablesOf } from './swap';

/**
 * Makes versions go on from those of the database that is about to be replaced. Otherwise a browser that still has a
 * later version open could save over the restored build as soon as that has reached the same number.
 * @param incoming - the database that will take its place, migrated; a build that stands there in an older version
 * becomes a new revision
 */
export async function liftVersions(db: Pool, replaced: string, incoming: string): Promise<void> {
  const tables = await tablesOf(db, replaced);
  for (const table of ['build', 'build_gone']) {
    if (!tables.includes(table)) continue;
    await change(
      db,
      `INSERT INTO \`${incoming}\`.build_gone (id, version, gone_at)
       SELECT id, version, UTC_TIMESTAMP(3) FROM \`${replaced}\`.${table} AS old
        WHERE id NOT IN (SELECT id FROM \`${incoming}\`.build)
       ON DUPLICATE KEY UPDATE version = GREATEST(\`${incoming}\`.build_gone.version, old.version)`,
    );
    await change(
      db,
      `INSERT INTO \`${incoming}\`.build_revision (build_id, version, save_id, packed, bytes, changed, saved_at)
       SELECT now.id, old.version + 1, UUID(), last.packed, last.bytes, 'Restored from a backup', UTC_TIMESTAMP(3)
         FROM \`${incoming}\`.build AS now
         JOIN \`${incoming}\`.build_revision AS last ON last.build_id = now.id AND last.version = now.version
         JOIN \`${replaced}\`.${table} AS old ON old.id = now.id AND old.version >= now.version
        WHERE old.version > now.version OR last.save_id NOT IN
              (SELECT save_id FROM \`${replaced}\`.build_revision AS same
                WHERE same.build_id = old.id AND same.version = old.version)`,
    );
    await change(
      db,
      `UPDATE \`${incoming}\`.build AS now
         JOIN (SELECT build_id, MAX(version) AS version FROM \`${incoming}\`.build_revision GROUP BY build_id) AS last
              ON last.build_id = now.id
          SET now.counted_version = IF(now.counted_version = now.version, last.version, 0), now.version = last.version
        WHERE last.version > now.version`,
    );
  }
}
