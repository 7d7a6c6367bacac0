import { describe, expect, test } from 'vitest';
import type { Span } from './span.ts';
import {
  clockParts,
  clockSignal,
  commonCycleMs,
  commonDivisor,
  meanLevel,
  timelinesOf,
  type ScheduledPattern,
} from './timeline.ts';

const lit = (fromMs: number, toMs: number, level = 1, endLevel?: number): Span => ({
  fromMs,
  toMs,
  level,
  ...(endLevel === undefined ? {} : { endLevel }),
});
const channel = (
  channelId: string,
  cycleMs: number,
  spans: readonly Span[],
  more: Partial<ScheduledPattern> = {},
): ScheduledPattern => ({
  channelId,
  clockId: 'one',
  cycleMs,
  spans,
  steady: false,
  ...more,
});

test('common divisors and cycles', () => {
  expect([commonDivisor(12, 18), commonDivisor(5, 0), commonDivisor(7, 5)]).toEqual([6, 5, 1]);
  expect(commonCycleMs([800, 1000, 1250])).toBe(20_000);
  expect(commonCycleMs([])).toBe(1);
});

describe('channels of one clock are laid out together', () => {
  test('over the cycle common to them, cut at every edge of each', () => {
    const [together, ...more] = timelinesOf([
      channel('a', 100, [lit(0, 50)]),
      channel('b', 200, [lit(150, 200, 0.5)]),
    ]);
    expect(more).toEqual([]);
    expect(together).toMatchObject({ clockId: 'one', cycleMs: 200, linked: false });
    expect(together?.durationsMs).toEqual([50, 50, 50, 50]);
    expect(together?.channels.map((c) => [c.drive.channelId, [...c.start], [...c.end]])).toEqual([
      ['a', [1, 0, 1, 0], [1, 0, 1, 0]],
      ['b', [0, 0, 0, 0.5], [0, 0, 0, 0.5]],
    ]);
  });

  test('a ramp that another channel cuts goes on from there', () => {
    const [together] = timelinesOf([
      channel('a', 100, [lit(0, 100, 0, 1)]),
      channel('b', 100, [lit(50, 100)]),
    ]);
    expect(together?.durationsMs).toEqual([50, 50]);
    expect(together?.channels.map((c) => [[...c.start], [...c.end]])).toEqual([
      [
        [0, 0.5],
        [0.5, 1],
      ],
      [
        [0, 1],
        [0, 1],
      ],
    ]);
  });

  test('the same channel beside others is laid out with these', () => {
    const a = channel('a', 100, [lit(0, 50)]);
    const beside = (other: ScheduledPattern) => timelinesOf([a, other])[0]?.durationsMs;
    expect(beside(channel('b', 100, [lit(50, 100)]))).toEqual([50, 50]);
    expect(beside(channel('c', 100, [lit(70, 80)]))).toEqual([50, 20, 10, 20]);
    const b = channel('b', 100, [lit(10, 30)]);
    expect(beside(b)).toEqual([10, 20, 20, 50]);
    expect(beside(b)).toEqual([10, 20, 20, 50]);
  });

  test('one timeline for each clock, in order; what is steady has none', () => {
    const timelines = timelinesOf([
      channel('a', 100, [lit(0, 50)], { clockId: 'two' }),
      channel('b', 100, [lit(0, 100)], { steady: true, clockId: 'steady' }),
      channel('c', 100, [lit(0, 50)]),
      channel('d', 100, [lit(50, 100)], { clockId: 'two' }),
    ]);
    expect(timelines.map((t) => [t.clockId, t.channels.map((c) => c.drive.channelId)])).toEqual([
      ['two', ['a', 'd']],
      ['one', ['c']],
    ]);
  });
});

describe('channels whose common cycle is too long', () => {
  const parts = (...channels: readonly ScheduledPattern[]) =>
    clockParts(channels).map((p) => [p.members.map((m) => m.channelId).join(''), p.cycleMs, p.linked]);
  const one = [lit(0, 5)];

  test('up to 120 s they are one part', () => {
    expect(parts(channel('a', 40_000, one), channel('b', 60_000, one))).toEqual([['ab', 120_000, false]]);
    expect(parts(channel('a', 40_000, one), channel('b', 59_999, one))).toEqual([
      ['a', 40_000, false],
      ['b', 59_999, false],
    ]);
  });

  test('parts that have a divisor in common meet in some alignments only', () => {
    expect(parts(channel('a', 998, one), channel('b', 996, one))).toEqual([
      ['b', 996, true],
      ['a', 998, true],
    ]);
    expect(parts(channel('a', 997, one), channel('b', 991, one))).toEqual([
      ['b', 991, false],
      ['a', 997, false],
    ]);
    expect(parts(channel('a', 998, one), channel('b', 996, one), channel('c', 499, one))).toEqual([
      ['ac', 998, true],
      ['b', 996, true],
    ]);
  });

  test('so do channels that may show less', () => {
    expect(parts(channel('a', 100, one), channel('b', 100, one, { loose: true }))).toEqual([
      ['ab', 100, true],
    ]);
    expect(parts(channel('a', 100, one), channel('b', 100, one, { loose: false }))).toEqual([
      ['ab', 100, false],
    ]);
  });

  test('and what has more than 20 000 edges is no part either', () => {
    // 10 000 times two edges in 120 s.
    const quick = channel('a', 12, [lit(0, 5)]);
    expect(parts(quick, channel('b', 120_000, []))).toEqual([['ab', 120_000, false]]);
    expect(parts(quick, channel('b', 120_000, one))).toEqual([
      ['a', 12, true],
      ['b', 120_000, true],
    ]);
    // 500 times 40 edges, and two more; one bar less of each would do.
    const bars = (count: number) => Array.from({ length: count }, (_, i) => lit(3 * i, 3 * i + 1));
    expect(parts(channel('a', 60, bars(20)), channel('b', 30_000, one))).toHaveLength(2);
    expect(parts(channel('a', 60, bars(19)), channel('b', 30_000, one))).toEqual([['ab', 30_000, false]]);
    // Of channels with one cycle the one with the most edges counts.
    expect(parts(quick, channel('c', 12, []), channel('b', 120_000, one))).toEqual([
      ['ac', 12, true],
      ['b', 120_000, true],
    ]);
  });
});

test('the mean level of a channel: a ramp counts half', () => {
  expect(meanLevel(channel('a', 200, [lit(0, 50), lit(50, 100, 0, 1)]))).toBe(0.375);
});

describe('what one clock sends', () => {
  const [timeline] = timelinesOf([
    channel('a', 100, [lit(0, 50, 0.5, 1)]),
    channel('b', 100, [lit(0, 100, 0.5)]),
  ]);
  if (timeline === undefined) throw new Error('there is a timeline');

  test('is the sum of the channels that are named, each of its own amount', () => {
    const both = clockSignal(
      timeline,
      new Map([
        ['a', 10],
        ['b', 4],
        ['c', 100],
      ]),
    );
    expect(both).toMatchObject({ cycleMs: 100, durationsMs: [50, 50] });
    expect([Array.from(both?.start ?? []), Array.from(both?.end ?? [])]).toEqual([
      [7, 2],
      [12, 2],
    ]);
    const alone = clockSignal(timeline, new Map([['b', 4]]));
    expect(Array.from(alone?.start ?? [])).toEqual([2, 2]);
  });

  test('is nothing where none is named', () => expect(clockSignal(timeline, new Map([['c', 1]]))).toBeNull());
});
