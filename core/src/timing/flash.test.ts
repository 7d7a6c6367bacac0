import { describe, expect, test } from 'vitest';
import { LIBRARY } from './book.ts';
import { flashesPerCycle, mostPulses } from './flash.ts';
import type { Span } from './span.ts';

const span = (fromMs: number, toMs: number, slot?: 1 | 2 | 3): Span => ({
  fromMs,
  toMs,
  level: 1,
  ...(slot === undefined ? {} : { slot }),
});

describe('flashes of a cycle', () => {
  test.each<[string, Span[], number, number, number]>([
    ['one pulse', [span(0, 100)], 800, 1, 1],
    ['a double flash is one flash', [span(0, 60), span(120, 180)], 800, 1, 2],
    ['two alike, half a cycle apart, are two', [span(0, 100), span(400, 500)], 800, 2, 1],
    [
      'two doubles half a cycle apart are two of two',
      [span(0, 50), span(90, 140), span(400, 450), span(490, 540)],
      800,
      2,
      2,
    ],
    ['red, then blue: each change is a flash', [span(0, 300, 1), span(800, 1100, 2)], 1600, 2, 1],
    [
      'red red blue: two flashes, the first of two pulses',
      [span(0, 100, 1), span(200, 300, 1), span(600, 700, 2)],
      1000,
      2,
      2,
    ],
    [
      'a colour that runs over the end is one run',
      [span(0, 100, 1), span(300, 400, 2), span(800, 1000, 1)],
      1000,
      2,
      2,
    ],
    ['dark', [], 800, 0, 0],
    ['steady', [span(0, 800)], 800, 0, 0],
  ])('%s', (_, spans, cycleMs, flashes, pulses) => {
    expect(flashesPerCycle(spans, cycleMs)).toBe(flashes);
    expect(mostPulses([spans], cycleMs)).toBe(pulses);
  });

  test('colours that turn flash at 75 a minute, not at the 37.5 of their cycle', () => {
    const { cycleMs, slowestPerMinute, fastestPerMinute } = LIBRARY.cycle('colours-turn');
    expect(60_000 / cycleMs).toBe(37.5);
    expect([slowestPerMinute, fastestPerMinute]).toEqual([75, 75]);
  });
});
