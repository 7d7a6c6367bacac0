import { setTimeout } from 'node:timers/promises';
import type { Pool } from 'mysql2/promise';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { z } from 'zod';
import { change, many, openPool } from './db';
import { withLease } from './lease';
import { freshDatabase } from './support.testing';

let pools: Pool[];
beforeAll(async () => {
  const url = await freshDatabase('lease');
  pools = [openPool(url), openPool(url), openPool(url)];
});
afterAll(() => Promise.all(pools.map((pool) => pool.end())));

test('of several servers one works at a time, and every one gets its turn', async () => {
  let working = 0;
  let most = 0;
  let done = 0;
  await Promise.all(
    pools.map((pool) =>
      withLease(pool, 'turns', async () => {
        most = Math.max(most, ++working);
        await setTimeout(100);
        working--;
        done++;
      }),
    ),
  );
  expect([most, done]).toEqual([1, 3]);
});

test('what a killed holder left is taken once it has run out, and not before; a failure gives it back', async () => {
  const [pool] = pools;
  if (pool === undefined) throw new Error('there are pools');
  await withLease(pool, 'other', () => Promise.resolve());
  await change(
    pool,
    "INSERT INTO lease (name, holder, until_at) VALUES ('left', 'x', UTC_TIMESTAMP(3) + INTERVAL 2 SECOND)",
  );
  const from = performance.now();
  await expect(withLease(pool, 'left', () => Promise.reject(new Error('failed within')))).rejects.toThrow(
    'failed within',
  );
  expect(performance.now() - from).toBeGreaterThan(1500);
  expect(await many(pool, z.unknown(), "SELECT 1 FROM lease WHERE name = 'left'")).toEqual([]);
});

test('a lease is renewed while its holder works', { timeout: 60_000 }, async () => {
  const [pool] = pools;
  if (pool === undefined) throw new Error('there are pools');
  const Until = z.object({ until_at: z.coerce.date() });
  const until = async (): Promise<number> => {
    const [row] = await many(pool, Until, "SELECT until_at FROM lease WHERE name = 'long'");
    return row?.until_at.getTime() ?? NaN;
  };
  await withLease(pool, 'long', async () => {
    const first = await until();
    await setTimeout(6000);
    expect((await until()) - first).toBeGreaterThan(4000);
  });
});
