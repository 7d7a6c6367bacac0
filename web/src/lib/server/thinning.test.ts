import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isLeap, revisionsToDelete, type Aged, type Clock } from './thinning';

const now = new Date('2026-11-26T12:00:00Z');
const HOUR = 3_600_000;
/** All is as it should be: a server that has run for a year, and thinned an hour ago. */
const CLOCK: Clock = {
  now,
  upMs: 365 * 24 * HOUR,
  lastSeen: new Date(now.getTime() - HOUR),
  thirdLastStart: null,
};
/** A revision saved so many hours ago. */
const ago = (version: number, hours: number, named = false): Aged => ({
  version,
  savedAt: new Date(now.getTime() - hours * HOUR),
  named,
});

describe('revisions thin out with age', () => {
  test('all of the last day stay', () => {
    expect(revisionsToDelete([ago(1, 24), ago(2, 23.9), ago(3, 0.001), ago(4, 0)], CLOCK)).toEqual([]);
  });
  test('then the last of each hour', () => {
    // 10:10, 10:20 and 10:50 the day before yesterday, and 11:05.
    const before = [ago(1, 70), ago(2, 49.8), ago(3, 49.7), ago(4, 49.2), ago(5, 48.9), ago(6, 0)];
    expect(revisionsToDelete(before, CLOCK)).toEqual([2, 3]);
  });
  test('then the last of each day', () => {
    const old = [ago(1, 2000), ago(2, 40 * 24 + 3), ago(3, 40 * 24 + 2), ago(4, 40 * 24 - 1), ago(5, 0)];
    expect(revisionsToDelete(old, CLOCK)).toEqual([2, 3]);
  });
  test('the named, the first and the newest always stay', () => {
    const list = [ago(1, 49.9), ago(2, 49.8, true), ago(3, 49.7), ago(4, 49.6), ago(5, 0)];
    expect(revisionsToDelete(list, CLOCK)).toEqual([3]);
    expect(revisionsToDelete([ago(1, 1000), ago(2, 1000)], CLOCK)).toEqual([]);
    expect(revisionsToDelete([], CLOCK)).toEqual([]);
  });

  test('what is left is left again, and nothing else goes as time passes within a span', () => {
    const revision = fc.record({ hours: fc.integer({ min: 0, max: 3000 }), named: fc.boolean() });
    fc.assert(
      fc.property(fc.array(revision, { maxLength: 40 }), (list) => {
        const all = list
          .toSorted((a, b) => b.hours - a.hours)
          .map(({ hours, named }, i) => ago(i + 1, hours, named));
        const gone = new Set(revisionsToDelete(all, CLOCK));
        const left = all.filter((r) => !gone.has(r.version));
        expect(revisionsToDelete(left, CLOCK)).toEqual([]);
        expect(left.filter((r) => r.named)).toEqual(all.filter((r) => r.named));
        // Every day that had a revision still has one.
        const days = (of: Aged[]) => new Set(of.map((r) => r.savedAt.toISOString().slice(0, 10)));
        expect(days(left)).toEqual(days(all));
      }),
      { seed: 53 },
    );
  });
});

describe('a clock that is wrong', () => {
  const today = [ago(1, 5), ago(2, 4.9), ago(3, 4.8), ago(4, 0.1)];
  const ahead = (days: number, more: Partial<Clock> = {}): Clock => ({
    ...CLOCK,
    now: new Date(now.getTime() + days * 24 * HOUR),
    upMs: 1000,
    ...more,
  });

  test('400 days ahead at one start lets nothing go: it is a leap', () => {
    expect(isLeap(ahead(400))).toBe(true);
    expect(revisionsToDelete(today, ahead(400))).toEqual([]);
    // Whether or not it was noticed: the newest revision says that hardly any time has passed.
    expect(revisionsToDelete(today, ahead(400, { lastSeen: null }))).toEqual([]);
  });
  test('with a save under it, what was saved since the third last start is no older than the server', () => {
    const saved = [
      ...today,
      { version: 5, savedAt: new Date(now.getTime() + 400 * 24 * HOUR), named: false },
    ];
    const clock = ahead(400, { lastSeen: null });
    expect(
      revisionsToDelete(saved, { ...clock, thirdLastStart: new Date(now.getTime() - 6 * HOUR) }),
    ).toEqual([]);
    expect(revisionsToDelete(saved, clock)).toEqual([]);
    // What was there before is as old as the clock says.
    expect(revisionsToDelete(saved, { ...clock, thirdLastStart: now })).toEqual([2, 3]);
  });
  test('a long rest is no leap for ever: after a day of running the clock is believed', () => {
    const rested = { lastSeen: new Date(now.getTime() - 21 * 24 * HOUR) };
    expect(isLeap({ ...CLOCK, ...rested, upMs: 23 * HOUR })).toBe(true);
    expect(isLeap({ ...CLOCK, ...rested, upMs: 25 * HOUR })).toBe(false);
    expect(isLeap({ ...CLOCK, upMs: 0 })).toBe(false);
  });
  test('a shop that runs it by day thins again the day after a weekend', () => {
    const monday = { ...CLOCK, upMs: 2 * HOUR, lastSeen: new Date(now.getTime() - 3 * 24 * HOUR) };
    expect(isLeap(monday)).toBe(true);
    const tuesday = { ...CLOCK, upMs: 2 * HOUR, lastSeen: new Date(now.getTime() - 24 * HOUR) };
    expect(isLeap(tuesday)).toBe(false);
  });
  test('a server that runs for long without a start thins by the time that it has seen pass', () => {
    const old = [ago(1, 3000), ago(2, 300.3), ago(3, 300.2), ago(4, 300.1), ago(5, 0)];
    const clock = { ...CLOCK, thirdLastStart: new Date(now.getTime() - 4000 * HOUR) };
    expect(revisionsToDelete(old, clock)).toEqual(revisionsToDelete(old, CLOCK));
    expect(revisionsToDelete(old, { ...clock, upMs: 20 * HOUR })).toEqual([]);
  });
});
