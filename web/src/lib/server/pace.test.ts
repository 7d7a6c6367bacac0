import { expect, test } from 'vitest';
import { RateLimiter } from './pace';

test('a sender who asks too fast is told how long to wait; another is not', async () => {
  const pace = new RateLimiter(2);
  const waits = await Promise.all(Array.from({ length: 25 }, () => pace.waitS('192.0.2.1')));
  expect(waits.filter((wait) => wait === null)).toHaveLength(20);
  const told = waits.find((wait) => wait !== null) ?? 0;
  expect(told).toBeGreaterThanOrEqual(1);
  expect(told).toBeLessThanOrEqual(10);
  expect(await pace.waitS('192.0.2.2')).toBeNull();
});
