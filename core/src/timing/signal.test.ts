import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { seenFromM, thresholdLx } from '../coverage/range.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { flashFigures } from './flash.ts';
import { LIBRARY } from './book.ts';
import { PATTERNS } from './library.ts';
import { Pattern, spansFor } from './pattern.ts';
import { isSteady } from './span.ts';
import { commonCycleMs } from './timeline.ts';
import { effective, flashEffective, longestDarkMs, meanOf, opticalPower, type Signal } from './signal.ts';

const wave = (...pieces: readonly [ms: number, cd: number][]): Signal => ({
  cycleMs: pieces.reduce((sum, [ms]) => sum + ms, 0),
  durationsMs: pieces.map(([ms]) => ms),
  start: pieces.map(([, cd]) => cd),
  end: pieces.map(([, cd]) => cd),
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

  test('common cycles', () => expect(commonCycleMs([800, 1000, 1250])).toBe(20_000));
});

describe('range (Allard’s law; IALA threshold)', () => {
  test('thresholds at the eye', () => {
    expect(thresholdLx(0)).toBeCloseTo(2.42e-7, 12);
    expect(thresholdLx(1)).toBeCloseTo(6.449e-7, 10);
    expect(thresholdLx(10_000)).toBeCloseTo(9.989e-4, 7);
  });

  test.each([
    [333.33, 20_000, 10_000, 554.19],
    [333.33, 200, 10_000, 166.28],
    [333.33, 200, 1, 507.64],
  ])('%f cd in V = %f m against %f cd/m²: %f m', (cd, V, L, expected) => {
    expect(seenFromM(cd, V, L)).toBeCloseTo(expected, 1);
  });

  test('no light is not seen', () => expect(seenFromM(0, 20_000, 1)).toBe(0));
});

describe('the analytic beam', () => {
  const beam = { h50Deg: 20, v50Deg: 8, power: 2 };

  test('peak on the aim, half at the half-angles, the product between', () => {
    expect(relativeIntensity(beam, 0, 0)).toBe(1);
    expect(relativeIntensity(beam, 20, 0)).toBeCloseTo(0.5, 12);
    expect(relativeIntensity(beam, 0, -8)).toBeCloseTo(0.5, 12);
    expect(relativeIntensity(beam, 20, 8)).toBeCloseTo(0.25, 12);
    expect(relativeIntensity(beam, 40, 0)).toBeCloseTo(1 / 16, 12);
  });

  test('a beacon shines all round alike, less above and below', () => {
    const round = { h50Deg: null, v50Deg: 7, power: 2 };
    for (const h of [-180, -90, 0, 135]) expect(relativeIntensity(round, h, 7)).toBeCloseTo(0.5, 12);
  });

  test('nothing behind the lens', () => {
    expect(relativeIntensity({ ...beam, h50Deg: 500 }, 90.1, 0)).toBe(0);
    expect(relativeIntensity({ ...beam, h50Deg: 500 }, -120, 0)).toBe(0);
  });
});
