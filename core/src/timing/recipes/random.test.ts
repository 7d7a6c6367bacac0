import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { PatternOf } from '../pattern.ts';
import { waveformOfLine } from '../patternFigures.ts';
import { darkGaps } from '../signal.ts';
import { randomCycle } from './random.ts';

const chance = (patch: Partial<PatternOf<'random'>> = {}): PatternOf<'random'> => ({
  kind: 'random',
  id: 'c',
  name: 'Chance',
  seed: 0,
  cycleMs: 5000,
  phases: 3,
  pulse: { leastMs: 60, mostMs: 170 },
  dark: { leastMs: 240, mostMs: 600 },
  ...patch,
});

test('it draws a lot for each phase, between the rates that its bounds allow', () => {
  const cycle = randomCycle(chance());
  expect(cycle).toMatchObject({ by: 'phase', cycleMs: 5000, pulsesAFlash: 1 });
  expect(cycle.slowestPerMinute).toBeCloseTo(60_000 / 770, 9);
  expect(cycle.fastestPerMinute).toBeCloseTo(60_000 / 300, 9);
  expect(cycle.lines).toHaveLength(3);
  expect(new Set(cycle.lines.map((spans) => JSON.stringify(spans))).size).toBe(3);
});

test('it keeps its bounds for every seed, over the end of the cycle too, and is the same again', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 999_999 }), (seed) => {
      const cycle = randomCycle(chance({ seed }));
      expect(randomCycle(chance({ seed }))).toEqual(cycle);
      for (const spans of cycle.lines) {
        // A pulse over the end of the cycle is stored in two parts.
        const gaps = darkGaps(waveformOfLine(spans, cycle.cycleMs), 0.5);
        for (const gap of gaps) {
          expect(gap.ms).toBeGreaterThanOrEqual(240);
          expect(gap.ms).toBeLessThanOrEqual(600);
        }
        const rate = (gaps.length * 60_000) / cycle.cycleMs;
        expect(rate).toBeGreaterThanOrEqual(cycle.slowestPerMinute - 1e-9);
        expect(rate).toBeLessThanOrEqual(cycle.fastestPerMinute + 1e-9);
      }
    }),
    { numRuns: 100, seed: 29 },
  );
});

test('over many seeds it uses all of its room: numbers of pulses, lengths, and where it begins', () => {
  const lines = Array.from({ length: 300 }, (_, seed) => randomCycle(chance({ seed })).lines).flat();
  // A pulse over the end of the cycle is stored in two parts.
  const pulses = lines.map(
    (spans) => spans.length - (spans[0]?.fromMs === 0 && spans.at(-1)?.toMs === 5000 ? 1 : 0),
  );
  // From 5000 / 770 to 5000 / 300.
  expect([...new Set(pulses)].toSorted((a, b) => a - b)).toEqual([7, 8, 9, 10, 11, 12, 13, 14, 15, 16]);
  const lengths = new Set(lines.flatMap((spans) => spans.slice(1, -1).map((s) => s.toMs - s.fromMs)));
  expect([Math.min(...lengths), Math.max(...lengths)]).toEqual([60, 170]);
  expect(lengths.size).toBeGreaterThan(100);
  const begins = new Set(lines.map((spans) => spans[0]?.fromMs));
  expect(begins.size).toBeGreaterThan(100);
});

test('other seeds are other lots; the first two are, too', () => {
  const lots = Array.from({ length: 50 }, (_, seed) => JSON.stringify(randomCycle(chance({ seed })).lines));
  expect(new Set(lots).size).toBe(50);
});

test('what does not fit shows nothing', () => {
  const unfit = chance({
    cycleMs: 300,
    pulse: { leastMs: 100, mostMs: 100 },
    dark: { leastMs: 100, mostMs: 100 },
  });
  expect(randomCycle(unfit).lines).toEqual([[], [], []]);
});

test('a build is lit tomorrow as it was today: what a seed draws never changes', () => {
  const begins = (seed: number): number[][] =>
    randomCycle(chance({ seed, cycleMs: 2000, phases: 2 })).lines.map((spans) => spans.map((s) => s.fromMs));
  expect(begins(7)).toEqual([
    [8, 526, 886, 1270],
    [184, 485, 1180, 1581, 1882],
  ]);
});
