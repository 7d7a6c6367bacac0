import { setTimeout } from 'node:timers/promises';
import type { Pool } from 'mysql2/promise';
import { z } from 'zod';
import { change, many } from './db';

/** A lease that is not renewed for so long is nobody's any more, s. */
const LASTS_S = 20;
const RENEW_MS = 5000;
/** Waited for at most so long, ms. */
const LONGEST_WAIT_MS = 120_000;
const AGAIN_MS = 250;

/**
 * Runs `work` while this server alone holds the lease of a name. It is a row, not a lock of the database server: on a
 * cluster every node sees it, and a holder that was killed loses it after 20 s.
 * @throws {Error} another holds it for longer than two minutes
 */
export async function withLease(pool: Pool, name: string, work: () => Promise<void>): Promise<void> {
  const holder = crypto.randomUUID();
  await change(
    pool,
    `CREATE TABLE IF NOT EXISTS lease (
      name VARCHAR(40) CHARACTER SET ascii NOT NULL PRIMARY KEY,
      holder CHAR(36) CHARACTER SET ascii NOT NULL,
      until_at DATETIME(3) NOT NULL
    ) ENGINE = InnoDB`,
  );
  const until = Date.now() + LONGEST_WAIT_MS;
  while (!(await take(pool, name, holder))) {
    if (Date.now() > until) throw new Error(`Another server has held '${name}' for two minutes.`);
    await setTimeout(AGAIN_MS);
  }
  const renewing = setInterval(() => void take(pool, name, holder).catch(() => false), RENEW_MS);
  try {
    await work();
  } finally {
    clearInterval(renewing);
    await change(pool, 'DELETE FROM lease WHERE name = ? AND holder = ?', [name, holder]).catch(() => 0);
  }
}

/** Takes or renews the lease. @returns whether it is ours; another's try that came first counts as theirs */
async function take(pool: Pool, name: string, holder: string): Promise<boolean> {
  try {
    await change(
      pool,
      `INSERT INTO lease (name, holder, until_at) VALUES (?, ?, UTC_TIMESTAMP(3) + INTERVAL ${LASTS_S} SECOND)
       ON DUPLICATE KEY UPDATE
         holder = IF(holder = VALUES(holder) OR until_at < UTC_TIMESTAMP(3), VALUES(holder), holder),
         until_at = IF(holder = VALUES(holder), VALUES(until_at), until_at)`,
      [name, holder],
    );
  } catch (error) {
    // Two nodes of a cluster at once: one of them is told of a deadlock, and tries again.
    if (Deadlock.safeParse(error).success) return false;
    throw error;
  }
  const rows = await many(
    pool,
    z.strictObject({ holder: z.string() }),
    'SELECT holder FROM lease WHERE name = ?',
    [name],
  );
  return rows[0]?.holder === holder;
}

const Deadlock = z.looseObject({ code: z.literal('ER_LOCK_DEADLOCK') });
