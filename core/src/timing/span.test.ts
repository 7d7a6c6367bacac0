import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { highestLevel, inOrder, levelAtTime, litMs, shifted, type Span } from './span.ts';

const line = fc
  .array(
    fc.tuple(
      fc.integer({ min: 0, max: 30 }),
      fc.integer({ min: 5, max: 40 }),
      fc.double({ min: 0.05, max: 1, noNaN: true }),
      fc.option(fc.double({ min: 0.05, max: 1, noNaN: true })),
    ),
    { maxLength: 5 },
  )
  .map((parts) => {
    let at = 0;
    const spans = parts.map(([gap, ms, level, end]): Span => {
      const fromMs = at + gap;
      at = fromMs + ms;
      return { fromMs, toMs: at, level, ...(end === null ? {} : { endLevel: end }) };
    });
    return { spans, cycleMs: Math.max(20, at + 15) };
  });

describe('lines', () => {
  test('begun later, a line shows the same later, and comes in again at the beginning', () => {
    fc.assert(
      fc.property(line, fc.integer({ min: -500, max: 500 }), ({ spans, cycleMs }, by) => {
        const later = shifted(spans, cycleMs, by);
        expect(inOrder(later, cycleMs)).toBe(true);
        expect(litMs(later)).toBeCloseTo(litMs(spans), 9);
        for (let t = 0.5; t < cycleMs; t += 7)
          expect(levelAtTime(later, cycleMs, t + by)).toBeCloseTo(levelAtTime(spans, cycleMs, t), 9);
      }),
      { numRuns: 200, seed: 19 },
    );
  });

  test('the highest level is that of a span, at its beginning or at the end of its ramp', () => {
    const span = (level: number, endLevel?: number): Span => ({
      fromMs: 0,
      toMs: 10,
      level,
      ...(endLevel === undefined ? {} : { endLevel }),
    });
    expect([[], [span(0.4)], [span(0.4), span(0.9), span(0.2)]].map(highestLevel)).toEqual([0, 0.4, 0.9]);
    expect([[span(0.2, 0.8)], [span(0.8, 0.2)], [span(0.3), span(0.1, 0.6)]].map(highestLevel)).toEqual([
      0.8, 0.8, 0.6,
    ]);
  });
});
