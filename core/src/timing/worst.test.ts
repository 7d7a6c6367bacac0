import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  alignments,
  bruteDarkMs,
  bruteEffective,
  bruteWorstDarkMs,
  perMs,
} from '../../test/reference/bruteTiming.ts';
import { pieces, steps, waveOf } from '../../test/reference/lights.ts';
import { commonCycleMs } from './timeline.ts';
import { highestTogether, leastEffective, together, worstDarkMs } from './worst.ts';

describe('the worst alignment of clocks that drift', () => {
  test('the longest dark time is what trying every alignment says', () => {
    const clock = steps(7, [0, 0, 3, 5, 9]);
    fc.assert(
      fc.property(
        fc.array(clock, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: 0, max: 2 }),
        fc.integer({ min: 3, max: 16 }),
        (clocks, background, threshold) => {
          const found = worstDarkMs({ background, clocks }, threshold);
          expect(found.exact).toBe(true);
          const reach = 10 * commonCycleMs(clocks.map((w) => w.cycleMs));
          const brute = bruteWorstDarkMs(clocks.map(perMs), background, threshold, Math.min(reach, 200));
          if (brute >= Math.min(reach, 200)) expect(found.value).toBeGreaterThanOrEqual(brute);
          else expect(found.value).toBe(brute);
        },
      ),
      { numRuns: 150, seed: 31 },
    );
  });

  test('by hand: two that reach it only together can both be lit one after the other in the gap', () => {
    // 60 cd for 100 of 800 ms each, wanted 100: their flashes need never meet.
    const weak = waveOf([
      [100, 60, null],
      [700, 0, null],
    ]);
    expect(worstDarkMs({ background: 0, clocks: [weak, weak] }, 100)).toEqual({
      value: Infinity,
      exact: true,
    });
    // A third that reaches it alone ends the gap: 650 ms between its own flashes.
    const strong = waveOf([
      [150, 200, null],
      [650, 0, null],
    ]);
    expect(worstDarkMs({ background: 0, clocks: [weak, weak, strong] }, 100)).toEqual({
      value: 650,
      exact: true,
    });
  });

  test('eight clocks are settled, and every alignment tried at random keeps within the figures', () => {
    const clocks = Array.from({ length: 8 }, (_, i) =>
      waveOf([
        [90 + 10 * i, 30 + 5 * i, null],
        [400 - 20 * i, 0, null],
        [60, 20 + 3 * i, null],
        [250 + 20 * i, 0, null],
      ]),
    );
    const light = { background: 4, clocks };
    const dark = worstDarkMs(light, 45);
    expect(dark.exact).toBe(true);
    const samples = clocks.map(perMs);
    // More light never gives less: whatever else falls in, the best flash of one of them is there.
    const alone = Math.max(...samples.map((s) => bruteEffective(s.map((cd) => cd + 4))));
    expect(leastEffective(light).value).toBeGreaterThanOrEqual(alone - 1e-9);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 799 }), { minLength: 8, maxLength: 8 }), (phases) => {
        const ms = Float64Array.from({ length: 4000 }, (_, t) =>
          samples.reduce((sum, s, k) => sum + (s[(t + (phases[k] ?? 0)) % s.length] ?? 0), 4),
        );
        const run = bruteDarkMs(ms, 45);
        if (Number.isFinite(run) && run < 1000) expect(run).toBeLessThanOrEqual(dark.value);
        expect(Math.max(...ms)).toBeLessThanOrEqual(highestTogether(light).value + 1e-9);
        expect(bruteEffective(ms.slice(0, 2000))).toBeGreaterThanOrEqual(alone - 1e-9);
      }),
      { numRuns: 20, seed: 37 },
    );
  });

  test('a search cut short answers with a bound, and says so; one that settles all the same is right', () => {
    const clock = steps(7, [0, 0, 3, 5, 9]);
    fc.assert(
      fc.property(
        fc.array(clock, { minLength: 2, maxLength: 3 }),
        fc.integer({ min: 3, max: 16 }),
        fc.integer({ min: 0, max: 6 }),
        (clocks, threshold, placings) => {
          const light = { background: 0, clocks };
          const whole = worstDarkMs(light, threshold);
          const cut = worstDarkMs(light, threshold, { placings });
          expect(cut.value).toBeGreaterThanOrEqual(whole.value);
          if (cut.exact) expect(cut.value).toBe(whole.value);
        },
      ),
      { numRuns: 200, seed: 47 },
    );
  });

  /** Of 300 lights drawn by chance, how many are settled in so many placings. */
  const settledIn = (placings: number, clocks: number, mostMs: number, most: number): number =>
    fc
      .sample(
        fc.tuple(
          fc.array(steps(mostMs, [0, 0, 3, 5, 9]), { minLength: clocks, maxLength: clocks }),
          fc.integer({ min: 6, max: most }),
        ),
        { numRuns: 300, seed: 53 },
      )
      .filter(
        ([lights, threshold]) =>
          worstDarkMs({ background: 0, clocks: lights }, threshold, { placings }).exact,
      ).length;

  test('a good alignment to begin with settles more than half before anything is placed', () => {
    // Without it 125 and 88 of 300 are settled by the bound alone.
    expect(settledIn(0, 3, 7, 16)).toBeGreaterThanOrEqual(170);
    expect(settledIn(0, 4, 40, 20)).toBeGreaterThanOrEqual(130);
  });

  test('what cannot become longer is not placed further: more is settled in few placings', () => {
    // 190 and 140 where the light that others send at least is not counted.
    expect(settledIn(60, 3, 40, 16)).toBeGreaterThanOrEqual(196);
    expect(settledIn(30, 4, 40, 20)).toBeGreaterThanOrEqual(141);
  });

  test('a ramp that begins or ends below what is needed falls short, one at just that does not', () => {
    const strong = waveOf([
      [100, 300, null],
      [500, 0, null],
    ]);
    const exact = (from: number, to: number): boolean => {
      const ramp = waveOf([
        [200, from, to],
        [600, 0, null],
      ]);
      return worstDarkMs({ background: 0, clocks: [ramp, ramp, strong] }, 100).exact;
    };
    expect([exact(60, 150), exact(150, 60), exact(100, 150), exact(150, 100)]).toEqual([
      false,
      false,
      true,
      true,
    ]);
  });

  test('a bound that is short enough is answered as it is', () => {
    const strong = waveOf([
      [150, 200, null],
      [650, 0, null],
    ]);
    const light = { background: 0, clocks: [strong] };
    expect(worstDarkMs(light, 100)).toEqual({ value: 650, exact: true });
    expect(worstDarkMs(light, 100, { enoughMs: 650 })).toEqual({ value: 650, exact: false });
    expect(worstDarkMs(light, 100, { enoughMs: 649 })).toEqual({ value: 650, exact: true });
  });

  test('ramps that reach it only together are not searched: the bound says so', () => {
    const swell = waveOf([
      [200, 0, 80],
      [200, 80, 0],
      [400, 0, null],
    ]);
    const strong = waveOf([
      [100, 200, null],
      [500, 0, null],
    ]);
    expect(worstDarkMs({ background: 0, clocks: [swell, swell, strong] }, 100)).toEqual({
      value: 500,
      exact: false,
    });
    const weak = waveOf([
      [200, 60, null],
      [600, 0, null],
    ]);
    expect(worstDarkMs({ background: 0, clocks: [swell, weak, strong] }, 100)).toEqual({
      value: 500,
      exact: false,
    });
    // One alone that falls short, and two that fall short together, cannot end a gap.
    expect(worstDarkMs({ background: 0, clocks: [swell, strong] }, 100)).toEqual({ value: 500, exact: true });
    expect(worstDarkMs({ background: 0, clocks: [swell, swell, strong] }, 170)).toEqual({
      value: 500,
      exact: true,
    });
  });

  test('the steady part counts, and so does what a clock never falls below', () => {
    expect(worstDarkMs({ background: 7, clocks: [] }, 10)).toEqual({ value: Infinity, exact: true });
    expect(worstDarkMs({ background: 7, clocks: [] }, 7)).toEqual({ value: 0, exact: true });
    expect(leastEffective({ background: 7, clocks: [] })).toEqual({ value: 7, exact: true });
    const never = waveOf([
      [100, 90, null],
      [300, 40, null],
    ]);
    expect(worstDarkMs({ background: 20, clocks: [never] }, 60)).toEqual({ value: 0, exact: true });
    expect(worstDarkMs({ background: 20, clocks: [never] }, 61)).toEqual({ value: 300, exact: true });
    expect(highestTogether({ background: 20, clocks: [never, never] })).toEqual({ value: 200, exact: true });
    expect(highestTogether({ background: 20, clocks: [never], linked: true })).toEqual({
      value: 110,
      exact: false,
    });
  });

  test('the least effective intensity is what trying every alignment says', () => {
    const clock = steps(9, [0, 0, 400, 900]);
    fc.assert(
      fc.property(
        fc.array(clock, { minLength: 2, maxLength: 3 }),
        fc.constantFrom<number[]>(0, 50),
        (clocks, steady) => {
          const found = leastEffective({ background: steady, clocks });
          const cycles = clocks.map((w) => w.cycleMs);
          const common = commonCycleMs(cycles);
          fc.pre(common < 400);
          const samples = clocks.map(perMs);
          let brute = Infinity;
          for (const phases of alignments(cycles)) {
            const ms = Float64Array.from({ length: common }, (_, t) =>
              samples.reduce((sum, s, k) => sum + (s[(t + (phases[k] ?? 0)) % s.length] ?? 0), steady),
            );
            const mean = ms.reduce((a, b) => a + b, 0) / common;
            brute = Math.min(brute, Math.max(mean, bruteEffective(ms)));
          }
          expect(found.exact).toBe(true);
          expect(found.value).toBeCloseTo(brute, 6);
        },
      ),
      { numRuns: 40, seed: 41 },
    );
  });

  test('lights that must overlap: the least is found, above what mean and single flashes give', () => {
    // Lit for 7 of 10 ms each, two of them overlap for 4 ms at least.
    const long = waveOf([
      [7, 900, null],
      [3, 0, null],
    ]);
    const long12 = waveOf([
      [9, 700, null],
      [3, 0, null],
    ]);
    for (const clocks of [
      [long, long],
      [long, long, long],
      [long, long12],
      [long12, long, long12],
    ]) {
      const cycles = clocks.map((w) => w.cycleMs);
      const common = commonCycleMs(cycles);
      const samples = clocks.map(perMs);
      const over = [...alignments(cycles)].map((phases) => {
        const ms = Float64Array.from({ length: common }, (_, t) =>
          samples.reduce((sum, s, k) => sum + (s[(t + (phases[k] ?? 0)) % s.length] ?? 0), 0),
        );
        return Math.max(ms.reduce((a, b) => a + b, 0) / common, bruteEffective(ms));
      });
      const found = leastEffective({ background: 0, clocks });
      expect(found.exact).toBe(true);
      expect(found.value).toBeCloseTo(Math.min(...over), 6);
    }
  });

  test('a search that is given up answers with the mean, and says that it is a bound', () => {
    // Three that light for 1500 of 4000 ms overlap in every alignment; there are 16 million of them.
    const slow = waveOf([
      [1500, 1000, null],
      [2500, 0, null],
    ]);
    expect(leastEffective({ background: 5, clocks: [slow, slow, slow] })).toEqual({
      value: 1130,
      exact: false,
    });
    // Cycles that meet in none short enough are not tried at all.
    const odd = waveOf([
      [1500, 1000, null],
      [2503, 0, null],
    ]);
    expect(leastEffective({ background: 0, clocks: [slow, odd] }).exact).toBe(false);
  });

  test('two lights laid together are their sum at every moment', () => {
    fc.assert(
      fc.property(pieces, pieces, fc.integer({ min: 0, max: 200 }), (a, b, by) => {
        const [first, second] = [waveOf(a), waveOf(b)];
        fc.pre(commonCycleMs([first.cycleMs, second.cycleMs]) < 6000);
        const sum = perMs(together(first, second, by));
        const [p, q] = [perMs(first), perMs(second)];
        for (let t = 0; t < sum.length; t += 13) {
          const wanted = (p[t % p.length] ?? 0) + (q[(((t - by) % q.length) + q.length) % q.length] ?? 0);
          expect(sum[t]).toBeCloseTo(wanted, 6);
        }
      }),
      { numRuns: 100, seed: 43 },
    );
  });
});
