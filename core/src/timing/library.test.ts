import { describe, expect, test } from 'vitest';
import { LIBRARY } from './book.ts';
import { familyOf, PATTERN_FAMILIES, PATTERNS } from './library.ts';
import { Pattern, spansFor } from './pattern.ts';
import { levelAtTime, type Span } from './span.ts';
import { MOST_FLASHES_A_SECOND, mostInASecond, patternFigures, risesOf } from './patternFigures.ts';

describe('the library', () => {
  test('holds more than forty patterns, each whole and with a name of its own', () => {
    expect(PATTERNS.length).toBeGreaterThanOrEqual(40);
    for (const key of ['id', 'name'] as const)
      expect(new Set(PATTERNS.map((p) => p[key])).size).toBe(PATTERNS.length);
    for (const p of PATTERNS) expect(Pattern.safeParse(p).error?.issues[0]?.message, p.id).toBeUndefined();
    expect(new Set(PATTERNS.map((p) => familyOf(p.id)))).toEqual(new Set(PATTERN_FAMILIES));
  });

  test('halves answer each other: phase B is phase A half a cycle later', () => {
    for (const id of ['single', 'triple', 'quad-slow', 'short-long', 'turns', 'double-then-single']) {
      const p = LIBRARY.cycle(id);
      const later = p.lines[0]?.map((s) => ({
        ...s,
        fromMs: s.fromMs + p.cycleMs / 2,
        toMs: s.toMs + p.cycleMs / 2,
      }));
      expect(p.lines[1], id).toEqual(later);
    }
  });

  test('what fills from the middle out begins with the two in the middle, mirrored', () => {
    const p = LIBRARY.cycle('centre-out');
    const starts = Array.from({ length: 8 }, (_, i) => spansFor(p, 'A', i + 1)[0]?.fromMs);
    expect(starts).toEqual([420, 280, 140, 0, 0, 140, 280, 420]);
  });

  test('no such pattern', () => {
    expect(LIBRARY.find('zigzag')).toBeUndefined();
    expect(() => LIBRARY.pattern('zigzag')).toThrow(/no pattern 'zigzag'/);
  });
});

describe('figures of a pattern', () => {
  test('double flash: 75 a minute, two pulses, 220 of 800 ms lit', () => {
    const f = patternFigures(LIBRARY.cycle('double'));
    expect(f).toMatchObject({ cyclesPerMinute: 75, pulsesPerCycle: 2, onShare: 0.275, longestDarkMs: 530 });
    expect(f.meanLevel).toBeCloseTo(0.275, 12);
    // Blondel and Rey over both pulses: 0.22 / (0.2 + 0.27) = 0.468; over one: 0.11 / 0.31 = 0.355.
    expect(f.effectiveShare).toBeCloseTo(0.22 / 0.47, 12);
  });

  test('flashes in a second: a window that begins with a flash, by brute force over every millisecond', () => {
    for (const { id } of PATTERNS) {
      const p = LIBRARY.cycle(id);
      const spans = spansFor(p, 'A', 1);
      const level = (ms: number): number => {
        const t = ((ms % p.cycleMs) + p.cycleMs) % p.cycleMs;
        return levelAtTime(spans, p.cycleMs, t);
      };
      // A light that goes on rising has risen once.
      const up = (ms: number): boolean => level(ms + 0.25) > level(ms - 0.25);
      const rises = Array.from({ length: p.cycleMs + 1000 }, (_, ms) =>
        up(ms) && !(level(ms - 0.25) > level(ms - 0.5)) ? 1 : 0,
      );
      let inWindow = rises.slice(0, 1000).reduce((a: number, b) => a + b, 0);
      let most = inWindow;
      for (let from = 1; from <= p.cycleMs; from++) {
        inWindow += (rises[from + 999] ?? 0) - (rises[from - 1] ?? 0);
        most = Math.max(most, inWindow);
      }
      expect(patternFigures(p).mostFlashesASecond, id).toBe(most);
    }
  });

  test('steady is no flash; a burn under a flash lifts the mean, not the rate', () => {
    expect(patternFigures(LIBRARY.cycle('steady'))).toMatchObject({
      steady: true,
      effectiveShare: 1,
      mostFlashesASecond: 0,
    });
    const burn = patternFigures(LIBRARY.cycle('burn-single'));
    expect(burn.mostFlashesASecond).toBe(2);
    expect(burn.meanLevel).toBeCloseTo((220 + 0.25 * 580) / 800, 12);
  });

  test('the calm ones stay within three flashes a second over the whole group', () => {
    for (const id of ['night-quarter', 'slow-alternate', 'turns-slow', 'blink'])
      expect(patternFigures(LIBRARY.cycle(id)).mostFlashesASecondOfGroup, id).toBeLessThanOrEqual(
        MOST_FLASHES_A_SECOND,
      );
    expect(patternFigures(LIBRARY.cycle('quad')).mostFlashesASecondOfGroup).toBeGreaterThan(
      MOST_FLASHES_A_SECOND,
    );
  });

  test('what it is to people with photosensitive epilepsy, and whether it keeps its sense without a clock', () => {
    const classOf = (id: string): string => patternFigures(LIBRARY.cycle(id)).seizureClass;
    expect(classOf('steady')).toBe('no flash');
    expect(classOf('night-quarter')).toBe('within three flashes a second');
    expect(classOf('quad')).toBe('over three flashes a second');
    for (const { id } of PATTERNS)
      expect(patternFigures(LIBRARY.cycle(id)).soundAlone, id).toBe(LIBRARY.cycle(id).lines.length === 1);
    expect(PATTERNS.some(({ id }) => LIBRARY.cycle(id).lines.length === 1)).toBe(true);
    expect(PATTERNS.some(({ id }) => LIBRARY.cycle(id).lines.length > 1)).toBe(true);
  });

  test('three flashes in a second are within three, a fourth is over', () => {
    expect(mostInASecond([], 800)).toBe(0);
    expect(mostInASecond([0, 400], 1200)).toBe(2);
    // The busiest second begins late in the cycle and goes over its end; a second begins, and the next is not in it.
    expect(mostInASecond([0, 100, 900], 1000)).toBe(3);
    expect(mostInASecond([1500, 1900, 0, 400], 2000)).toBe(4);
    expect(mostInASecond([0], 1000)).toBe(1);
    expect(mostInASecond([0], 999)).toBe(2);
  });

  test('a light rises where it jumps up, or begins to swell; going on is no rise', () => {
    const lit = (fromMs: number, toMs: number, level: number, endLevel?: number): Span =>
      endLevel === undefined ? { fromMs, toMs, level } : { fromMs, toMs, level, endLevel };
    expect(risesOf([lit(0, 100, 1), lit(100, 200, 0.5)], 800)).toEqual([0]);
    expect(risesOf([lit(0, 100, 0.5), lit(100, 200, 1)], 800)).toEqual([0, 100]);
    expect(risesOf([lit(0, 100, 0, 0.5), lit(100, 200, 0.5, 1)], 800)).toEqual([0]);
    expect(risesOf([lit(0, 100, 1, 0.5), lit(100, 200, 0.5, 1)], 800)).toEqual([0, 100]);
    expect(risesOf([lit(0, 100, 0.5), lit(100, 200, 0.5, 1)], 800)).toEqual([0, 100]);
    // It burns over the end of the cycle: what goes on there has not risen.
    expect(risesOf([lit(0, 100, 1), lit(700, 800, 1)], 800)).toEqual([700]);
    // One that ended before is no level to rise from.
    expect(risesOf([lit(0, 100, 1), lit(150, 200, 0.5)], 800)).toEqual([0, 150]);
  });
});

test('the busiest second begins with any rise, and the cycle after may come into it', () => {
  expect(mostInASecond([], 800)).toBe(0);
  expect(mostInASecond([0], 1000)).toBe(1);
  expect(mostInASecond([0], 999)).toBe(2);
  // In no order; from 700 on three more come before 1700.
  expect(mostInASecond([900, 0, 700], 1500)).toBe(3);
  expect(mostInASecond([900, 0, 700], 1700)).toBe(3);
  expect(mostInASecond([900, 700, 0], 1701)).toBe(3);
  expect(mostInASecond([0, 500, 1200, 1300], 5000)).toBe(3);
  expect(mostInASecond([4600, 4900, 0, 100], 5000)).toBe(4);
});
