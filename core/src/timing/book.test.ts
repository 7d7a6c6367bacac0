import { describe, expect, test } from 'vitest';
import { bookOf, LIBRARY, PatternBook } from './book.ts';
import { PATTERNS } from './library.ts';
import type { Pattern } from './pattern.ts';

const lit = (fromMs: number, toMs: number) => ({ fromMs, toMs, level: 1 });
const drawn = (lines: readonly (readonly (readonly [number, number])[])[], id = 'mine'): Pattern => ({
  kind: 'drawn',
  id,
  name: `Pattern ${id}`,
  by: 'phase',
  cycleMs: 1000,
  lines: lines.map((spans) => spans.map(([from, to]) => lit(from, to))),
});

describe('patterns that may be used', () => {
  test('are those of the library and one’s own, by their ids', () => {
    const [first] = PATTERNS;
    const mine = drawn([[[0, 100]]]);
    const book = new PatternBook([mine]);
    expect(book.own).toEqual([mine]);
    expect(book.pattern('mine')).toBe(mine);
    expect(book.find(first?.id ?? '')).toBe(first);
    expect(LIBRARY.find('mine')).toBeUndefined();
    expect(() => LIBRARY.pattern('mine')).toThrow("no pattern 'mine'");
    expect(() => LIBRARY.cycle('mine')).toThrow("no pattern 'mine'");
  });

  test('one’s own goes before one of the library of the same id', () => {
    const mine = drawn([[[0, 100]]], PATTERNS[0]?.id);
    expect(new PatternBook([mine]).pattern(mine.id)).toBe(mine);
  });

  test('are worked out once for the same patterns, and anew for others', () => {
    const patterns = [drawn([[[0, 100]]])];
    const book = bookOf({ timing: { patterns } });
    expect(bookOf({ timing: { patterns } })).toBe(book);
    expect(book.cycle('mine')).toBe(book.cycle('mine'));
    expect(bookOf({ timing: { patterns: [...patterns] } })).not.toBe(book);
  });
});

describe('how fast a drawn pattern flashes', () => {
  const rates = (lines: Parameters<typeof drawn>[0]) => {
    const { slowestPerMinute, fastestPerMinute, pulsesAFlash } = LIBRARY.cycleOf(drawn(lines));
    return { slowestPerMinute, fastestPerMinute, pulsesAFlash };
  };
  // Flashes 400 ms apart are two; a line that stays dark flashes at no rate at all.
  const ONCE = [[0, 100]] as const;
  const TWICE = [
    [0, 100],
    [500, 600],
  ] as const;

  test('its slowest and its fastest line', () => {
    expect(rates([ONCE, TWICE])).toEqual({ slowestPerMinute: 60, fastestPerMinute: 120, pulsesAFlash: 1 });
    expect(rates([TWICE])).toEqual({ slowestPerMinute: 120, fastestPerMinute: 120, pulsesAFlash: 1 });
  });

  test('lines that stay dark do not count', () => {
    expect(rates([TWICE, []])).toEqual({ slowestPerMinute: 120, fastestPerMinute: 120, pulsesAFlash: 1 });
  });

  test('steady light counts as one flash a cycle', () => {
    expect(rates([[[0, 1000]]])).toMatchObject({ slowestPerMinute: 60, fastestPerMinute: 60 });
  });

  test('a sequence is worked out from its parts, and holds no other', () => {
    const once = drawn([ONCE], 'once');
    const parts = [{ patternId: 'once', times: 2 }];
    const sequence: Pattern = { kind: 'sequence', id: 'seq', name: 'In turn', parts };
    const book = new PatternBook([once, sequence]);
    expect(book.cycle('seq').cycleMs).toBe(2000);
    const nested: Pattern = { ...sequence, id: 'nested', parts: [{ patternId: 'seq', times: 1 }] };
    expect(() => book.cycleOf(nested)).toThrow("'In turn' is a sequence; a sequence cannot contain one");
  });
});
