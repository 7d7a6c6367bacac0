import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  darkGaps,
  effective,
  flashEffective,
  highestOf,
  longestDarkMs,
  lowestOf,
  meanOf,
  opticalPower,
  raised,
  readerOf,
  type Signal,
} from './signal.ts';

/** Pieces that stay, or run straight to a third figure. */
const wave = (...pieces: readonly [ms: number, cd: number, endCd?: number][]): Signal => ({
  cycleMs: pieces.reduce((sum, [ms]) => sum + ms, 0),
  durationsMs: pieces.map(([ms]) => ms),
  start: pieces.map(([, cd]) => cd),
  end: pieces.map(([, cd, endCd]) => endCd ?? cd),
});

describe('optical power', () => {
  test('1000 cd for 100 ms at 75 flashes a minute is 7500 cd·s/min', () => {
    expect(opticalPower(wave([100, 1000], [700, 0]))).toBeCloseTo(7500, 9);
  });
});

describe('effective intensity (Blondel and Rey, a = 0.2 s)', () => {
  test.each<[string, Signal, number]>([
    // 1000 · 0.1 / (0.2 + 0.1)
    ['one flash of 100 ms', wave([100, 1000], [2000, 0]), 333.333],
    // 1000 · 0.12 / (0.2 + 0.16): both pulses together beat one alone (230.8)
    ['two pulses of 60 ms, 40 ms apart', wave([60, 1000], [40, 0], [60, 1000], [3000, 0]), 333.333],
    // 1000 · 0.05 / 0.25: one alone beats both (200 · … / 0.5)
    ['two pulses of 50 ms, 200 ms apart', wave([50, 1000], [200, 0], [50, 1000], [3000, 0]), 200],
    // (300 · 0.2 + 1000 · 0.05) / (0.2 + 0.25)
    ['300 cd for 200 ms, then 1000 cd for 50 ms', wave([200, 300], [50, 1000], [3000, 0]), 244.444],
  ])('%s', (_, waveform, expected) => {
    expect(flashEffective(waveform)).toBeCloseTo(expected, 3);
    expect(effective(waveform)).toBeCloseTo(expected, 3);
  });

  test('steady light keeps its intensity', () => expect(effective(wave([1000, 420]))).toBeCloseTo(420, 9));

  test('no light has none', () => expect(effective(wave([500, 0]))).toBe(0));

  const pieces = fc.array(fc.tuple(fc.integer({ min: 1, max: 25 }), fc.integer({ min: 0, max: 900 })), {
    minLength: 1,
    maxLength: 5,
  });
  const sampled = (w: Signal): number[] =>
    w.durationsMs.flatMap((ms, i) => Array.from({ length: ms }, () => w.start[i] ?? 0));

  test('is what every window of whole milliseconds says, over several cycles too', () => {
    fc.assert(
      fc.property(pieces, (parts) => {
        const w = wave(...parts);
        const ms = sampled(w);
        let best = 0;
        let bestMany = 0;
        for (let from = 0; from < ms.length; from++) {
          let energy = 0;
          for (let n = 1; n <= 3 * ms.length; n++) {
            energy += (ms[(from + n - 1) % ms.length] ?? 0) / 1000;
            const value = energy / (0.2 + n / 1000);
            if (n <= ms.length) best = Math.max(best, value);
            bestMany = Math.max(bestMany, value);
          }
        }
        expect(flashEffective(w)).toBeCloseTo(best, 9);
        expect(effective(w)).toBeGreaterThanOrEqual(bestMany - 1e-9);
        expect(effective(w)).toBeCloseTo(Math.max(best, meanOf(w)), 9);
      }),
      { numRuns: 200, seed: 3 },
    );
  });

  test('the longest dark gap is what counting milliseconds says', () => {
    fc.assert(
      fc.property(pieces, fc.integer({ min: 1, max: 900 }), (parts, threshold) => {
        const w = wave(...parts);
        const ms = sampled(w);
        let longest = 0;
        let dark = 0;
        for (let i = 0; i < 2 * ms.length; i++) {
          dark = (ms[i % ms.length] ?? 0) < threshold ? dark + 1 : 0;
          longest = Math.max(longest, dark);
        }
        expect(longestDarkMs(w, threshold)).toBe(longest === 2 * ms.length ? Infinity : longest);
      }),
      { numRuns: 200, seed: 5 },
    );
  });
});

describe('amounts', () => {
  test('the highest and the lowest lie at either end of a piece', () => {
    expect(highestOf(wave([100, 7, 2], [100, 1, 5]))).toBe(7);
    expect(highestOf(wave([100, 3, 2], [100, 1, 5]))).toBe(5);
    expect(lowestOf(wave([100, 3, 2], [100, 4, 5]))).toBe(2);
    expect(lowestOf(wave([100, 3, 4], [100, 6, 5]))).toBe(3);
  });

  test('the mean of a ramp is half of it', () => {
    expect(meanOf(wave([200, 0, 1000], [800, 0]))).toBeCloseTo(100, 12);
    expect(opticalPower(wave([200, 0, 1000], [800, 0]))).toBeCloseTo(6000, 9);
  });

  test('so much added all the time; nothing added is the same signal', () => {
    const w = wave([100, 0, 10], [100, 4]);
    expect(raised(w, 0)).toBe(w);
    const up = raised(w, 3);
    expect([up.cycleMs, up.durationsMs]).toEqual([200, [100, 100]]);
    expect([Array.from(up.start), Array.from(up.end)]).toEqual([
      [3, 7],
      [13, 7],
    ]);
  });

  test.each<[shiftMs: number, fromMs: number, toMs: number, start: number, end: number]>([
    [0, 0, 50, 0, 5],
    [0, 50, 100, 5, 10],
    [0, 100, 200, 4, 4],
    [0, 250, 300, 5, 10],
    [30, 30, 80, 0, 5],
    [30, 0, 30, 4, 4],
    [230, 30, 80, 0, 5],
  ])('begun %i ms later, from %i to %i ms it goes from %i to %i', (shiftMs, fromMs, toMs, start, end) => {
    const read = readerOf(wave([100, 0, 10], [100, 4]), shiftMs);
    expect(read(fromMs, toMs)).toEqual([start, end]);
  });
});

describe('the effective intensity of a ramp', () => {
  // I = 1000 (1 − t / 0.4). The best window ends where I is the ratio itself: 1.25 t² + 0.5 t = 0.2, t = 0.2472 s.
  const expected = 1000 * (1 - 0.2472136 / 0.4);

  test.each<[string, Signal]>([
    ['falling', wave([400, 1000, 0], [2000, 0])],
    ['rising', wave([400, 0, 1000], [2000, 0])],
    ['cut in two', wave([100, 1000, 750], [300, 750, 0], [2000, 0])],
    ['over the end of the cycle', wave([300, 750, 0], [2000, 0], [100, 1000, 750])],
  ])('%s', (_, w) => expect(flashEffective(w)).toBeCloseTo(expected, 2));
});

describe('dark gaps', () => {
  test('a ramp is dark from where it crosses the threshold', () => {
    expect(darkGaps(wave([100, 1000, 0], [100, 0, 1000]), 250)).toEqual([{ fromMs: 75, ms: 50 }]);
  });

  test('what lies at the threshold is not dark', () => {
    expect(darkGaps(wave([100, 5], [100, 0]), 5)).toEqual([{ fromMs: 100, ms: 100 }]);
  });

  test('what runs over the end of the cycle is one, and stands last', () => {
    expect(darkGaps(wave([100, 0], [300, 500], [100, 0]), 1)).toEqual([{ fromMs: 400, ms: 200 }]);
    const three = wave([100, 0], [100, 500], [50, 0], [100, 500], [100, 0]);
    expect(darkGaps(three, 1)).toEqual([
      { fromMs: 200, ms: 50 },
      { fromMs: 350, ms: 200 },
    ]);
    expect(longestDarkMs(three, 1)).toBe(200);
  });

  test('at the beginning alone, at the end alone, never, always', () => {
    expect(darkGaps(wave([100, 0], [300, 500]), 1)).toEqual([{ fromMs: 0, ms: 100 }]);
    expect(darkGaps(wave([300, 500], [100, 0]), 1)).toEqual([{ fromMs: 300, ms: 100 }]);
    expect(darkGaps(wave([300, 500]), 1)).toEqual([]);
    expect(longestDarkMs(wave([300, 500]), 1)).toBe(0);
    expect(darkGaps(wave([300, 0.5], [100, 0]), 1)).toEqual([{ fromMs: 0, ms: Infinity }]);
  });
});
