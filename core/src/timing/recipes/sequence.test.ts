import { describe, expect, test } from 'vitest';
import { CYCLE_MS, type Cycle } from '../pattern.ts';
import { sequenceCycle } from './sequence.ts';

/** A cycle whose lines each flash once, begun at these times, for 10 ms. */
const cycle = (cycleMs: number, begins: readonly number[], patch: Partial<Cycle> = {}): Cycle => ({
  by: 'phase',
  cycleMs,
  lines: begins.map((fromMs) => [{ fromMs, toMs: fromMs + 10, level: 1 }]),
  slowestPerMinute: 60,
  fastestPerMinute: 60,
  pulsesAFlash: 1,
  ...patch,
});
const fromOf = ({ lines }: Cycle): number[][] => lines.map((spans) => spans.map(({ fromMs }) => fromMs));

describe('cycles one after another', () => {
  const two = cycle(100, [0, 50], { slowestPerMinute: 90, fastestPerMinute: 120, pulsesAFlash: 2 });
  const three = cycle(300, [5, 105, 205], { slowestPerMinute: 60, fastestPerMinute: 80, pulsesAFlash: 3 });

  test('each so many times, begun where the last one ends; what has fewer lines begins again with its first', () => {
    const found = sequenceCycle([
      { cycle: two, times: 2 },
      { cycle: three, times: 1 },
    ]);
    expect([found.by, found.cycleMs]).toEqual(['phase', 500]);
    expect(fromOf(found)).toEqual([
      [0, 100, 205],
      [50, 150, 305],
      [0, 100, 405],
    ]);
    expect(found.lines[1]?.at(-1)).toEqual({ fromMs: 305, toMs: 315, level: 1 });
  });
  test('says the slowest, the fastest and the most pulses of all its parts', () => {
    const { slowestPerMinute, fastestPerMinute, pulsesAFlash } = sequenceCycle([
      { cycle: two, times: 1 },
      { cycle: three, times: 1 },
    ]);
    expect([slowestPerMinute, fastestPerMinute, pulsesAFlash]).toEqual([60, 120, 3]);
  });
  test('may be as long as a cycle may, and no longer', () => {
    const whole = cycle(CYCLE_MS.max / 2, [0]);
    expect(sequenceCycle([{ cycle: whole, times: 2 }]).cycleMs).toBe(CYCLE_MS.max);
    const over = () =>
      sequenceCycle([
        { cycle: whole, times: 2 },
        { cycle: two, times: 1 },
      ]);
    expect(over).toThrow(new RangeError('runs for 60100 ms; at most 60000 ms are allowed'));
  });
  test('of nothing, or of lines by phase and along a row, is none', () => {
    expect(() => sequenceCycle([])).toThrow(new RangeError('a sequence needs at least one pattern'));
    const row = cycle(100, [0], { by: 'order' });
    expect(() =>
      sequenceCycle([
        { cycle: two, times: 1 },
        { cycle: row, times: 1 },
      ]),
    ).toThrow(/cannot follow/);
  });
});
