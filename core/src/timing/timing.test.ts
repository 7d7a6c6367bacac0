import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { LIBRARY, PatternBook } from './book.ts';
import { PATTERNS } from './library.ts';
import { Pattern, spansFor, type PatternOf } from './pattern.ts';
import { waveformOfLine } from './patternFigures.ts';
import { atSpeed, percentSpeed } from './recipes/speed.ts';
import { endLevelOf, inOrder, levelAtTime, litMs, shifted, type Span } from './span.ts';
import { commonCycleMs } from './timeline.ts';
import { darkGaps, effective, flashEffective, longestDarkMs, meanOf, type Signal } from './signal.ts';
import { highestTogether, leastEffective, together, worstDarkMs } from './worst.ts';
import {
  alignments,
  bruteDarkMs,
  bruteEffective,
  bruteWorstDarkMs,
  linePerMs,
  perMs,
} from '../../test/reference/bruteTiming.ts';

/** Any light with steps and ramps. */
const pieces = fc.array(
  fc.tuple(
    fc.integer({ min: 1, max: 60 }),
    fc.integer({ min: 0, max: 900 }),
    fc.option(fc.integer({ min: 0, max: 900 })),
  ),
  { minLength: 1, maxLength: 6 },
);
const waveOf = (parts: readonly (readonly [number, number, number | null])[]): Signal => ({
  cycleMs: parts.reduce((sum, [ms]) => sum + ms, 0),
  durationsMs: parts.map(([ms]) => ms),
  start: parts.map(([, cd]) => cd),
  end: parts.map(([, cd, to]) => to ?? cd),
});
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
/** Any light of steps alone. */
const steps = (mostMs: number, levels: readonly number[]) =>
  fc
    .array(fc.tuple(fc.integer({ min: 1, max: mostMs }), fc.constantFrom(...levels)), {
      minLength: 2,
      maxLength: 4,
    })
    .map((parts) => waveOf(parts.map(([ms, cd]) => [ms, cd, null] as const)));

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
});

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
    expect(tryOut(sequence(['slow-then-quick', 1]))).toThrow(/holds none/);
    expect(tryOut(sequence(['s', 1]))).toThrow(/holds none/);
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
