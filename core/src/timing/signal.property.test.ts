import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { bruteDarkMs, bruteEffective, linePerMs, perMs } from '../../test/reference/bruteTiming.ts';
import { pieces, waveOf } from '../../test/reference/lights.ts';
import { LIBRARY } from './book.ts';
import { PATTERNS } from './library.ts';
import { waveformOfLine } from './patternFigures.ts';
import { darkGaps, effective, flashEffective, longestDarkMs, meanOf, type Signal } from './signal.ts';
import { litMs } from './span.ts';

/** Intensity at any time, read off the pieces. */
function cdAt(w: Signal, timeMs: number): number {
  let left = ((timeMs % w.cycleMs) + w.cycleMs) % w.cycleMs;
  for (const [i, ms] of w.durationsMs.entries()) {
    const [from, to] = [w.start[i] ?? 0, w.end[i] ?? 0];
    if (left < ms) return from + ((to - from) * left) / ms;
    left -= ms;
  }
  return 0;
}
describe('figures against counting milliseconds', () => {
  test('the integral is equal to 1e-9, ramps and all', () => {
    fc.assert(
      fc.property(pieces, (parts) => {
        const w = waveOf(parts);
        const sum = perMs(w).reduce((a, b) => a + b, 0);
        expect(Math.abs(meanOf(w) * w.cycleMs - sum)).toBeLessThanOrEqual(1e-9 * (1 + sum));
      }),
      { numRuns: 300, seed: 11 },
    );
  });

  test('effective intensity is no window’s less, and the best window’s own where light goes by steps', () => {
    fc.assert(
      fc.property(pieces, (parts) => {
        const w = waveOf(parts);
        const brute = bruteEffective(perMs(w));
        const exact = flashEffective(w);
        expect(exact).toBeGreaterThanOrEqual(brute * (1 - 1e-9));
        if (parts.every(([, cd, to]) => to === null || to === cd)) expect(exact).toBeCloseTo(brute, 8);
        // Ramps reach a little further between whole milliseconds: at most one at either end.
        else expect(exact).toBeLessThanOrEqual(brute + (900 * 0.002) / 0.2);
      }),
      { numRuns: 200, seed: 13 },
    );
  });

  test('a triangle of light by hand: the best window begins and ends where the light is as strong as its result', () => {
    // Up to 1000 cd in 100 ms and down again. With a window from s to 200 − s: E = 0.1 − s²·10 (s in s, k = 1000/0.1);
    // I(s) = 10 000 s = Ie = (100 − 10 000 s²) / (0.4 − 2 s), so s² − 0.04·10·s/… solved: s = 0.2 − √0.03.
    const w = waveOf([
      [100, 0, 1000],
      [100, 1000, 0],
      [3000, 0, null],
    ]);
    const s = 0.2 - Math.sqrt(0.03);
    expect(flashEffective(w)).toBeCloseTo(10_000 * s, 6);
  });

  test('dark gaps are exact: to the millisecond by steps, and on ramps dark within and light beside', () => {
    fc.assert(
      fc.property(pieces, fc.integer({ min: 1, max: 900 }), (parts, threshold) => {
        const w = waveOf(parts);
        const gaps = darkGaps(w, threshold);
        if (parts.every(([, cd, to]) => to === null || to === cd))
          expect(longestDarkMs(w, threshold)).toBe(bruteDarkMs(perMs(w), threshold));
        for (const { fromMs, ms } of gaps.filter((gap) => Number.isFinite(gap.ms) && gap.ms > 1e-3)) {
          for (let k = 1; k < 40; k++) expect(cdAt(w, fromMs + (ms * k) / 40)).toBeLessThan(threshold + 1e-9);
          expect(cdAt(w, fromMs - 1e-6)).toBeGreaterThan(threshold - 1e-2);
          expect(cdAt(w, fromMs + ms + 1e-6)).toBeGreaterThan(threshold - 1e-2);
        }
        const dark = gaps.reduce((sum, gap) => sum + Math.min(gap.ms, w.cycleMs), 0);
        let sampled = 0;
        for (let t = 0.005; t < w.cycleMs; t += 0.01) if (cdAt(w, t) < threshold) sampled += 0.01;
        expect(Math.abs(dark - sampled)).toBeLessThanOrEqual(0.02 * (1 + parts.length));
      }),
      { numRuns: 150, seed: 17 },
    );
    const ramp = waveOf([
      [100, 0, 100],
      [100, 100, 0],
    ]);
    // Below 25 cd for the first and the last quarter of either ramp, joined over the end.
    expect(darkGaps(ramp, 25)).toEqual([{ fromMs: 175, ms: 50 }]);
  });

  test('every line of every library pattern: lit time and darkness', () => {
    for (const { id } of PATTERNS) {
      const cycle = LIBRARY.cycle(id);
      for (const spans of cycle.lines) {
        const ms = linePerMs(spans, cycle.cycleMs);
        const sum = ms.reduce((a, b) => a + b, 0);
        expect(Math.abs(litMs(spans) - sum), id).toBeLessThanOrEqual(1e-9 * (1 + sum));
        const w = waveformOfLine(spans, cycle.cycleMs);
        expect(effective(w), id).toBeGreaterThanOrEqual(bruteEffective(ms) * (1 - 1e-9));
        const dark = longestDarkMs(w, 0.3);
        if (Number.isFinite(dark)) expect(Math.abs(dark - bruteDarkMs(ms, 0.3)), id).toBeLessThanOrEqual(1);
      }
    }
  });
});
