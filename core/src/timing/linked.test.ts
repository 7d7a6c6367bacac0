import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { mayFollow, timeOf } from './clock.ts';
import { atSpeed, percentSpeed, speedNumber } from './recipes/speed.ts';
import { LIBRARY } from './book.ts';
import { clockParts, clockSignal, commonDivisor, timelinesOf, type ScheduledPattern } from './timeline.ts';
import { leastEffective, worstDarkMs } from './worst.ts';

const flash = (channelId: string, cycleMs: number, litMs = Math.round(cycleMs / 4)): ScheduledPattern => ({
  channelId,
  clockId: 'c',
  cycleMs,
  spans: [{ fromMs: 0, toMs: litMs, level: 1 }],
  steady: false,
});
const lightOf = (drives: readonly ScheduledPattern[], cd: number) => {
  const amounts = new Map(drives.map((d) => [d.channelId, cd]));
  const timelines = timelinesOf(drives);
  return {
    background: 0,
    clocks: timelines.flatMap((t) => clockSignal(t, amounts) ?? []),
    linked: timelines.some((t) => t.linked),
  };
};

describe('clocks linked at awkward speeds', () => {
  // 800 ms at 97 % is 825 ms, at 91 % 879 ms; with 800 ms their common cycle is 7.7 million ms.
  const awkward = [flash('a', 800), flash('b', 825), flash('c', 879)];

  test('are never laid out beyond two minutes, and say that what is found is a bound', () => {
    const parts = clockParts(awkward);
    expect(Math.max(...parts.map((p) => p.cycleMs))).toBeLessThanOrEqual(120_000);
    expect(parts.every((p) => p.linked)).toBe(true);
    const light = lightOf(awkward, 100);
    expect(worstDarkMs(light, 150).exact).toBe(false);
    expect(leastEffective(light).exact).toBe(false);
    expect(worstDarkMs({ ...light, background: 200 }, 150)).toEqual({ value: 0, exact: true });
  });

  test('cycles without a common divisor come through every alignment: not a bound', () => {
    const coprime = [flash('a', 601, 100), flash('b', 607, 100)];
    expect(commonDivisor(601, 607)).toBe(1);
    const parts = clockParts(coprime);
    expect(parts).toHaveLength(2);
    expect(parts.every((p) => !p.linked)).toBe(true);
  });

  test('what can be laid out is laid out in one', () => {
    const parts = clockParts([flash('a', 800), flash('b', 400), flash('c', 1200)]);
    expect(parts.map((p) => [p.cycleMs, p.linked])).toEqual([[2400, false]]);
  });

  test('any cycles, any number of them: every part can be laid out, no channel is lost, time is bounded', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 20, max: 60_000 }), { minLength: 1, maxLength: 12 }),
        (cycles) => {
          const drives = cycles.map((ms, i) => flash(String(i), ms));
          const parts = clockParts(drives);
          expect(parts.flatMap((p) => p.members.map((d) => d.channelId)).toSorted()).toEqual(
            drives.map((d) => d.channelId).toSorted(),
          );
          for (const part of parts) {
            expect(part.cycleMs).toBeLessThanOrEqual(120_000);
            for (const d of part.members) expect(part.cycleMs % d.cycleMs).toBe(0);
          }
          expect(timelinesOf(drives).reduce((n, t) => n + t.durationsMs.length, 0)).toBeLessThan(250_000);
        },
      ),
      { seed: 3, numRuns: 60 },
    );
  });
});

describe('speeds are exact fractions', () => {
  const group = (id: string, followsId: string | null, speedPercent: number) => ({
    id,
    followsId,
    speedPercent,
    offsetMs: 0,
  });
  test('80 % of 80 % is 16/25: 800 ms become 1250, and back again 800', () => {
    const chain = [group('a', null, 80), group('b', 'a', 80)];
    const { speed } = timeOf(chain, 'b');
    expect(speed).toEqual({ over: 16n, under: 25n });
    expect(speedNumber(speed)).toBe(0.64);
    expect(atSpeed(LIBRARY.cycle('single'), speed).cycleMs).toBe(1250);
    const back = timeOf([...chain, group('c', 'b', 125), group('d', 'c', 125)], 'd');
    expect(back.speed).toEqual({ over: 1n, under: 1n });
  });
  test('a chain of 32 at 97 % does not lose a bit', () => {
    const chain = Array.from({ length: 32 }, (_, i) => group(`g${i}`, i === 0 ? null : `g${i - 1}`, 97));
    expect(timeOf(chain, 'g31').speed).toEqual({ over: 97n ** 32n, under: 100n ** 32n });
    expect(speedNumber(timeOf(chain, 'g31').speed)).toBeCloseTo(0.97 ** 32, 9);
    expect(mayFollow(chain, 'g0', 'g31')).toBe(false);
  });
  test('halves round up, as Math.round does', () => {
    for (const percent of [10, 33, 50, 91, 97, 150, 400])
      for (const ms of [15, 25, 45, 115, 799, 801]) {
        const cycle = {
          ...LIBRARY.cycle('single'),
          cycleMs: 5_000,
          lines: [[{ fromMs: 0, toMs: ms * 5, level: 1 }]],
        };
        expect(atSpeed(cycle, percentSpeed(percent)).lines[0]?.[0]?.toMs).toBe(
          Math.round((ms * 5 * 100) / percent),
        );
      }
  });
});
