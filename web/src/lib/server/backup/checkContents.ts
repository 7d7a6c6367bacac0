import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { findBuild } from '../buildRepo';
import { many } from '../db';
import { findRevision } from '../revisionRepo';
import { listRulePacks, packVersions } from '../rulePackRepo';
import { BackupError } from './format';

const BuildRow = z.strictObject({ id: z.string(), name: z.string(), version: z.int() });
const RevisionRow = z.strictObject({ build_id: z.string(), version: z.int() });

/** What was found in a database; each number is also that of the rows in the table. */
export interface Contents {
  readonly builds: number;
  readonly revisions: number;
  readonly packs: number;
}

/**
 * Reads every build, revision and rule pack, as the app would.
 * @param tell - how many revisions are read, of how many
 * @throws {BackupError} one cannot be read; says which and why
 */
export async function checkContents(pool: Pool, tell: (done: number, of: number) => void): Promise<Contents> {
  const builds = await many(pool, BuildRow, 'SELECT id, name, version FROM build ORDER BY name');
  for (const { id, name, version } of builds)
    await tried(`build '${name}'`, async () => {
      const saved = await findBuild(pool, id);
      if (saved?.build.id !== id) throw new Error('its document is of another build');
      if ((await findRevision(pool, id, version)) === null)
        throw new Error(`its last revision, ${version}, is missing`);
    });
  const nameOf = new Map(builds.map(({ id, name }) => [id, name]));
  const revisions = await many(
    pool,
    RevisionRow,
    'SELECT build_id, version FROM build_revision ORDER BY build_id, version',
  );
  for (const [i, { build_id: id, version }] of revisions.entries()) {
    await tried(`revision ${version} of build '${nameOf.get(id) ?? id}'`, () =>
      findRevision(pool, id, version),
    );
    tell(i + 1, revisions.length);
  }
  const packs = await tried('the rule packs', () => listRulePacks(pool));
  for (const { id, name } of packs)
    await tried(`the versions of rule pack '${name}'`, () => packVersions(pool, id));
  return { builds: builds.length, revisions: revisions.length, packs: packs.length };
}

async function tried<T>(what: string, read: () => Promise<T>): Promise<T> {
  try {
    return await read();
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new BackupError(`The backup cannot be used: ${what} cannot be read: ${why}.`);
  }
}
