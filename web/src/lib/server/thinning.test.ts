import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { revisionsToDelete, type Aged } from './thinning';

const now = new Date('2026-11-26T12:00:00Z');
const HOUR = 3_600_000;
/** A revision saved so many hours ago. */
const ago = (version: number, hours: number, named = false): Aged => ({
  version,
  savedAt: new Date(now.getTime() - hours * HOUR),
  named,
});

describe('revisions thin out with age', () => {
  test('all of the last day stay', () => {
    expect(revisionsToDelete([ago(1, 24), ago(2, 23.9), ago(3, 0.001), ago(4, 0)], now)).toEqual([]);
  });
  test('then the last of each hour', () => {
    // 10:10, 10:20 and 10:50 the day before yesterday, and 11:05.
    const before = [ago(1, 70), ago(2, 49.8), ago(3, 49.7), ago(4, 49.2), ago(5, 48.9), ago(6, 0)];
    expect(revisionsToDelete(before, now)).toEqual([2, 3]);
  });
  test('then the last of each day', () => {
    const old = [ago(1, 2000), ago(2, 40 * 24 + 3), ago(3, 40 * 24 + 2), ago(4, 40 * 24 - 1), ago(5, 0)];
    expect(revisionsToDelete(old, now)).toEqual([2, 3]);
  });
  test('the named, the first and the newest always stay', () => {
    expect(revisionsToDelete([ago(1, 49.9), ago(2, 49.8, true), ago(3, 49.7), ago(4, 49.6)], now)).toEqual([
      3,
    ]);
    expect(revisionsToDelete([ago(1, 1000), ago(2, 1000)], now)).toEqual([]);
    expect(revisionsToDelete([], now)).toEqual([]);
  });

  test('what is left is left again, and nothing else goes as time passes within a span', () => {
    const revision = fc.record({ hours: fc.integer({ min: 0, max: 3000 }), named: fc.boolean() });
    fc.assert(
      fc.property(fc.array(revision, { maxLength: 40 }), (list) => {
        const all = list
          .toSorted((a, b) => b.hours - a.hours)
          .map(({ hours, named }, i) => ago(i + 1, hours, named));
        const gone = new Set(revisionsToDelete(all, now));
        const left = all.filter((r) => !gone.has(r.version));
        expect(revisionsToDelete(left, now)).toEqual([]);
        expect(left.filter((r) => r.named)).toEqual(all.filter((r) => r.named));
        // Every day that had a revision still has one.
        const days = (of: Aged[]) => new Set(of.map((r) => r.savedAt.toISOString().slice(0, 10)));
        expect(days(left)).toEqual(days(all));
      }),
      { seed: 53 },
    );
  });
});
