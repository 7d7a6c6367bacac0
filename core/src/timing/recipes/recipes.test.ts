import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { LIBRARY, PatternBook } from '../book.ts';
import { PATTERNS } from '../library.ts';
import { Pattern, spansFor, type PatternOf } from '../pattern.ts';
import { endLevelOf, inOrder } from '../span.ts';
import { atSpeed, percentSpeed } from './speed.ts';

describe('patterns by recipe', () => {
  const row = (patch: Partial<PatternOf<'row'>>): PatternOf<'row'> => ({
    kind: 'row',
    id: 'r',
    name: 'Row',
    move: 'first-to-last',
    heads: 8,
    stepMs: 100,
    show: 'hold',
    holdMs: 200,
    restMs: 300,
    ...patch,
  });
  const starts = (p: PatternOf<'row'>) => LIBRARY.cycleOf(p).lines.map((spans) => spans.map((s) => s.fromMs));

  test.each<[Partial<PatternOf<'row'>>, number[][]]>([
    [{ heads: 3 }, [[0], [100], [200]]],
    [{ heads: 3, move: 'last-to-first' }, [[200], [100], [0]]],
    [{ heads: 5, move: 'middle-out' }, [[200], [100], [0], [100], [200]]],
    [{ heads: 4, move: 'middle-out' }, [[100], [0], [0], [100]]],
    [{ heads: 5, move: 'ends-in' }, [[0], [100], [200], [100], [0]]],
    [{ heads: 3, move: 'to-and-fro', show: 'run' }, [[0], [100, 300], [200]]],
    [{ heads: 3, move: 'every-other', show: 'run' }, [[0], [100], [0]]],
    [{ heads: 3, move: 'build-up', show: 'run' }, [[0, 100, 200], [100, 200], [200]]],
  ])('a row of %o begins at', (patch, wanted) => expect(starts(row(patch))).toEqual(wanted));

  test('any row of any number of heads keeps within its cycle, and every head lights', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 32 }),
        fc.constantFrom(
          'first-to-last' as const,
          'middle-out' as const,
          'ends-in' as const,
          'to-and-fro' as const,
          'build-up' as const,
        ),
        fc.constantFrom('hold' as const, 'run' as const),
        (heads, move, show) => {
          const cycle = LIBRARY.cycleOf(row({ heads, move, show }));
          expect(cycle.lines).toHaveLength(heads);
          for (const spans of cycle.lines) {
            expect(spans.length).toBeGreaterThan(0);
            expect(inOrder(spans, cycle.cycleMs)).toBe(true);
          }
        },
      ),
      { numRuns: 100, seed: 23 },
    );
  });

  test('a sequence repeats its parts, and says its slowest and fastest', () => {
    const cycle = LIBRARY.cycle('slow-then-quick');
    expect(cycle.cycleMs).toBe(3 * 1000 + 4 * 600);
    expect([cycle.slowestPerMinute, cycle.fastestPerMinute]).toEqual([60, 100]);
    expect(cycle.lines[0]?.map((s) => s.fromMs)).toEqual([0, 1000, 2000, 3000, 3600, 4200, 4800]);
  });

  test('what a sequence cannot be made of is said', () => {
    const sequence = (...parts: [string, number][]): Pattern => ({
      kind: 'sequence',
      id: 's',
      name: 'S',
      parts: parts.map(([patternId, times]) => ({ patternId, times })),
    });
    const tryOut = (p: Pattern) => () => new PatternBook([p]).cycle('s');
    expect(tryOut(sequence(['sweep', 1], ['single', 1]))).toThrow(/cannot follow each other/);
    expect(tryOut(sequence(['slow-then-quick', 1]))).toThrow(/is a sequence; a sequence cannot contain one/);
    expect(tryOut(sequence(['s', 1]))).toThrow(/is a sequence; a sequence cannot contain one/);
    expect(tryOut(sequence(['breathing', 30]))).toThrow(/90000 ms/);
    expect(tryOut(sequence(['nowhere', 1]))).toThrow(/no pattern 'nowhere'/);
  });

  test('every library pattern reads back, and ends where it began', () => {
    for (const p of PATTERNS) {
      expect(Pattern.parse(JSON.parse(JSON.stringify(p)))).toEqual(p);
      const cycle = LIBRARY.cycle(p.id);
      for (const spans of cycle.lines) {
        expect(inOrder(spans, cycle.cycleMs), p.id).toBe(true);
        for (const s of spans) expect(s.level > 0 || endLevelOf(s) > 0, p.id).toBe(true);
      }
    }
  });
});

test('speed: half as fast is twice as long, and back again the same; too fast is refused', () => {
  const cycle = LIBRARY.cycle('triple');
  const half = atSpeed(cycle, percentSpeed(50));
  expect(half.cycleMs).toBe(1800);
  expect(half.slowestPerMinute).toBeCloseTo(cycle.slowestPerMinute / 2, 9);
  expect(spansFor(half, 'B', 1)).toEqual(
    spansFor(cycle, 'B', 1).map((s) => ({ ...s, fromMs: 2 * s.fromMs, toMs: 2 * s.toMs })),
  );
  expect(atSpeed(half, percentSpeed(200))).toEqual(cycle);
  expect(() => atSpeed(LIBRARY.cycle('triple-quick'), percentSpeed(800))).toThrow(/shorter than 10 ms/);
  expect(() => atSpeed(LIBRARY.cycle('chance'), percentSpeed(10))).toThrow(/64000 ms/);
});
