import { describe, expect, test } from 'vitest';
import { LIBRARY } from './book.ts';
import { flashFigures } from './flash.ts';
import { PATTERNS } from './library.ts';
import {
  lineName,
  lineOf,
  MOST_LINES,
  Pattern,
  pulsesThatFit,
  ROW_MOVES,
  slotsOf,
  spansFor,
  type Cycle,
} from './pattern.ts';
import { isSteady } from './span.ts';

describe('patterns', () => {
  test('the library reads by its own schema, with unique names', () => {
    for (const p of PATTERNS) expect(Pattern.parse(p)).toEqual(p);
    expect(new Set(PATTERNS.map((p) => p.id)).size).toBe(PATTERNS.length);
  });

  test('figures: double flash 75/min, two pulses, 220 of 800 ms on, 530 ms dark', () => {
    const double = LIBRARY.cycle('double');
    expect(flashFigures(spansFor(double, 'A', 1), double.cycleMs)).toEqual({
      steady: false,
      cyclesPerMinute: 75,
      pulsesPerCycle: 2,
      onShare: 0.275,
      longestDarkMs: 530,
    });
  });

  test('steady is no flash and never dark', () => {
    const steady = LIBRARY.cycle('steady');
    const spans = spansFor(steady, 'B', 1);
    expect(isSteady(spans, steady.cycleMs)).toBe(true);
    expect(flashFigures(spans, steady.cycleMs)).toMatchObject({
      steady: true,
      pulsesPerCycle: 0,
      longestDarkMs: 0,
    });
  });

  test('phases A and B never overlap in the flashes', () => {
    for (const id of ['single', 'double', 'quad', 'slow-alternate']) {
      const p = LIBRARY.cycle(id);
      for (const a of spansFor(p, 'A', 1)) {
        for (const b of spansFor(p, 'B', 1)) expect(a.toMs <= b.fromMs || b.toMs <= a.fromMs).toBe(true);
      }
    }
  });

  test('a sweep lights its heads in order, and begins again after the last step', () => {
    const sweep = LIBRARY.cycle('sweep');
    const starts = Array.from({ length: 8 }, (_, i) => spansFor(sweep, 'A', i + 1)[0]?.fromMs);
    expect(starts).toEqual([0, 80, 160, 240, 320, 400, 480, 560]);
    expect(spansFor(sweep, 'A', 9)).toEqual(spansFor(sweep, 'A', 1));
  });

  test.each([
    ['ends before it begins', [{ fromMs: 50, toMs: 50, level: 1 }]],
    ['runs past the cycle', [{ fromMs: 0, toMs: 801, level: 1 }]],
    [
      'overlaps',
      [
        { fromMs: 0, toMs: 100, level: 1 },
        { fromMs: 99, toMs: 200, level: 1 },
      ],
    ],
    ['half a millisecond', [{ fromMs: 0.5, toMs: 100, level: 1 }]],
  ])('a span that %s is refused', (_, A) => {
    expect(
      Pattern.safeParse({ kind: 'drawn', by: 'phase', id: 'x', name: 'x', cycleMs: 800, lines: [A] }).success,
    ).toBe(false);
  });
});

describe('what is refused, and why', () => {
  const named = { id: 'x', name: 'x' };
  const bar = { fromMs: 0, toMs: 10, level: 1 };
  const drawn = { kind: 'drawn', ...named, by: 'phase', cycleMs: 800, lines: [[bar]] };
  const row = {
    kind: 'row',
    ...named,
    move: 'ends-in',
    heads: 8,
    stepMs: 80,
    show: 'run',
    holdMs: 0,
    restMs: 0,
  };
  const random = {
    kind: 'random',
    ...named,
    seed: 1,
    cycleMs: 1000,
    phases: 2,
    pulse: { leastMs: 100, mostMs: 200 },
    dark: { leastMs: 100, mostMs: 300 },
  };
  const sequence = { kind: 'sequence', ...named, parts: [{ patternId: 'double', times: 2 }] };
  const why = (p: object): string | undefined => Pattern.safeParse(p).error?.issues[0]?.message;
  const lines = (count: number) => Array.from({ length: count }, () => [bar]);

  test('nothing of these', () => {
    for (const p of [drawn, row, random, sequence]) expect(why(p), p.kind).toBeUndefined();
    for (const move of ROW_MOVES) expect(why({ ...row, move })).toBeUndefined();
  });

  test.each<[string, object, string | undefined]>([
    [
      'a kind that nobody knows',
      { ...drawn, kind: 'x' },
      "must be a pattern of kind 'drawn', 'row', 'random' or 'sequence'",
    ],
    [
      'a direction that nobody knows',
      { ...drawn, direction: 'up' },
      'must be one of left, right, from the middle',
    ],
    ['a direction', { ...drawn, direction: 'from the middle' }, undefined],
    ['by neither', { ...drawn, by: 'x' }, "must be 'phase' or 'order'"],
    ['a cycle of 19 ms', { ...drawn, cycleMs: 19 }, 'must be at least 20 ms'],
    ['a cycle of 20 ms', { ...drawn, cycleMs: 20 }, undefined],
    ['a cycle of a minute', { ...drawn, cycleMs: 60_000 }, undefined],
    ['a cycle of more', { ...drawn, cycleMs: 60_001 }, 'must be at most 60000 ms'],
    ['half milliseconds', { ...drawn, cycleMs: 800.5 }, 'must be whole milliseconds'],
    ['no line', { ...drawn, lines: [] }, 'Too small: expected array to have >=1 items'],
    ['eight phases', { ...drawn, lines: lines(8) }, undefined],
    ['nine phases', { ...drawn, lines: lines(9) }, 'at most 8 phases'],
    ['nine places', { ...drawn, by: 'order', lines: lines(9) }, undefined],
    ['the most places', { ...drawn, by: 'order', lines: lines(MOST_LINES) }, undefined],
    [
      'one more',
      { ...drawn, by: 'order', lines: lines(MOST_LINES + 1) },
      'Too big: expected array to have <=32 items',
    ],
    [
      'bars out of order',
      { ...drawn, lines: [[{ ...bar, fromMs: 50, toMs: 60 }, bar]] },
      'spans must be in order, apart from each other and within the cycle',
    ],
    ['a move that nobody knows', { ...row, move: 'x' }, `must be one of ${ROW_MOVES.join(', ')}`],
    ['a row of one', { ...row, heads: 1 }, 'a row has at least 2 heads'],
    ['a row of two', { ...row, heads: 2 }, undefined],
    ['a row of 32', { ...row, heads: 32 }, undefined],
    ['a row of 33', { ...row, heads: 33 }, 'at most 32 heads'],
    ['a show of neither kind', { ...row, show: 'x' }, "must be 'hold' or 'run'"],
    ['a step of 9 ms', { ...row, stepMs: 9 }, 'must be at least 10 ms'],
    ['a step of 10 ms', { ...row, stepMs: 10 }, undefined],
    ['a step of 20 s', { ...row, stepMs: 20_000 }, undefined],
    ['a step of more', { ...row, stepMs: 20_001 }, 'must be at most 20000 ms'],
    ['a hold and a rest of 20 s', { ...row, holdMs: 20_000, restMs: 20_000 }, undefined],
    ['a hold of more', { ...row, holdMs: 20_001 }, 'Too big: expected number to be <=20000'],
    ['a hold of less than none', { ...row, holdMs: -1 }, 'Too small: expected number to be >=0'],
    ['a rest of more', { ...row, restMs: 20_001 }, 'Too big: expected number to be <=20000'],
    ['a rest of less than none', { ...row, restMs: -1 }, 'Too small: expected number to be >=0'],
    [
      'a pulse from more to less',
      { ...random, pulse: { leastMs: 101, mostMs: 100 } },
      'leastMs must not exceed mostMs',
    ],
    ['a pulse of one length', { ...random, pulse: { leastMs: 100, mostMs: 100 } }, undefined],
    [
      'more pulses than anybody wants to work out',
      {
        ...random,
        cycleMs: 60_000,
        phases: 8,
        pulse: { leastMs: 10, mostMs: 10 },
        dark: { leastMs: 10, mostMs: 10 },
      },
      'at most 3000 pulses over all phases; take a shorter cycle, longer pulses or fewer phases',
    ],
    ['no phase', { ...random, phases: 0 }, 'Too small: expected number to be >=1'],
    ['eight lots', { ...random, phases: 8 }, undefined],
    ['nine lots', { ...random, phases: 9 }, 'Too big: expected number to be <=8'],
    ['the last seed', { ...random, seed: 999_999 }, undefined],
    [
      'one more than the last seed',
      { ...random, seed: 1_000_000 },
      'Too big: expected number to be <=999999',
    ],
    ['less than the first seed', { ...random, seed: -1 }, 'Too small: expected number to be >=0'],
    [
      'pulses that do not fill the cycle',
      { ...random, cycleMs: 300, pulse: { leastMs: 100, mostMs: 100 }, dark: { leastMs: 100, mostMs: 100 } },
      'no number of pulses and rests of these lengths fills the cycle exactly',
    ],
    ['no part', { ...sequence, parts: [] }, 'must name at least one pattern'],
    [
      'a part not once',
      { ...sequence, parts: [{ patternId: 'double', times: 0 }] },
      'Too small: expected number to be >=1',
    ],
    ['a part 50 times', { ...sequence, parts: [{ patternId: 'double', times: 50 }] }, undefined],
    [
      'a part 51 times',
      { ...sequence, parts: [{ patternId: 'double', times: 51 }] },
      'Too big: expected number to be <=50',
    ],
  ])('%s', (_, p, message) => expect(why(p)).toBe(message));

  test.each([
    [1000, [100, 200], [100, 300], { fewest: 2, most: 5 }],
    [200, [100, 100], [100, 100], { fewest: 1, most: 1 }],
    [300, [100, 100], [100, 100], null],
    [100, [60, 90], [60, 90], null],
  ] as const)('a cycle of %i ms, pulses of %j and rests of %j', (cycleMs, [a, b], [c, d], expected) => {
    const fit = pulsesThatFit({
      cycleMs,
      pulse: { leastMs: a, mostMs: b },
      dark: { leastMs: c, mostMs: d },
    });
    expect(fit).toEqual(expected);
  });
});

describe('lines', () => {
  const cycle = (by: Cycle['by'], ...lines: Cycle['lines']): Cycle => ({
    by,
    cycleMs: 100,
    lines,
    slowestPerMinute: 60,
    fastestPerMinute: 60,
    pulsesAFlash: 1,
  });
  const first = [{ fromMs: 0, toMs: 10, level: 1 }];
  const second = [{ fromMs: 50, toMs: 60, level: 1, slot: 2 as const }];

  test('by letter, or by place; beyond the last they begin again', () => {
    const [byLetter, byPlace] = [cycle('phase', first, second), cycle('order', first, second)];
    expect((['A', 'B', 'C', 'H'] as const).map((phase) => lineOf(byLetter, phase, 2))).toEqual([0, 1, 0, 1]);
    expect([1, 2, 3, 4].map((order) => lineOf(byPlace, 'B', order))).toEqual([0, 1, 0, 1]);
    expect(spansFor(byLetter, 'B', 1)).toBe(second);
    expect(spansFor(byPlace, 'B', 1)).toBe(first);
  });

  test('are called by their letter or their place', () => {
    expect([lineName('phase', 0), lineName('phase', 7)]).toEqual(['Phase A', 'Phase H']);
    expect([lineName('order', 0), lineName('order', 11)]).toEqual(['Step 1', 'Step 12']);
  });

  test('light the slots that they name, and else the one that is asked for, each once', () => {
    expect(slotsOf(cycle('phase', first, second, first), 1)).toEqual([1, 2]);
    expect(slotsOf(cycle('phase', first, second), 2)).toEqual([2]);
    expect(slotsOf(cycle('phase', second), 3)).toEqual([2]);
  });
});
