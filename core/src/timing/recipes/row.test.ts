import { expect, test } from 'vitest';
import type { PatternOf } from '../pattern.ts';
import { rowCycle } from './row.ts';

const row = (patch: Partial<PatternOf<'row'>>): PatternOf<'row'> => ({
  kind: 'row',
  id: 'r',
  name: 'Row',
  move: 'first-to-last',
  heads: 3,
  stepMs: 100,
  show: 'run',
  holdMs: 0,
  restMs: 300,
  ...patch,
});
const bars = (patch: Partial<PatternOf<'row'>>) =>
  rowCycle(row(patch)).lines.map((spans) => spans.map((s) => [s.fromMs, s.toMs]));

test('each is lit for its own step', () => {
  expect(bars({})).toEqual([[[0, 100]], [[100, 200]], [[200, 300]]]);
});

test('or the last stays lit as long as all are held', () => {
  expect(bars({ holdMs: 200 })).toEqual([[[0, 100]], [[100, 200]], [[200, 500]]]);
  expect(bars({ holdMs: 200, move: 'last-to-first' })).toEqual([[[200, 500]], [[100, 200]], [[0, 100]]]);
});

test('or all that are lit stay lit until all go dark', () => {
  expect(bars({ show: 'hold' })).toEqual([[[0, 300]], [[100, 300]], [[200, 300]]]);
  expect(bars({ show: 'hold', holdMs: 200 })).toEqual([[[0, 500]], [[100, 500]], [[200, 500]]]);
  expect(bars({ show: 'hold', move: 'to-and-fro' })).toEqual([[[0, 400]], [[100, 400]], [[200, 400]]]);
});

test('to and fro, the ends light once and those between twice, in order', () => {
  expect(bars({ move: 'to-and-fro', heads: 4, restMs: 0 })).toEqual([
    [[0, 100]],
    [
      [100, 200],
      [500, 600],
    ],
    [
      [200, 300],
      [400, 500],
    ],
    [[300, 400]],
  ]);
});

test('what builds up flashes anew at every step, for half of it; the last flash is held', () => {
  expect(bars({ move: 'build-up' })).toEqual([
    [
      [0, 50],
      [100, 150],
      [200, 250],
    ],
    [
      [100, 150],
      [200, 250],
    ],
    [[200, 250]],
  ]);
  expect(bars({ move: 'build-up', heads: 2, holdMs: 40, stepMs: 25 })).toEqual([
    [
      [0, 13],
      [25, 90],
    ],
    [[25, 90]],
  ]);
});

test('it is a row by places, with a cycle of its steps, its hold and its rest, and a flash a cycle', () => {
  expect(rowCycle(row({ holdMs: 200 }))).toMatchObject({
    by: 'order',
    cycleMs: 800,
    slowestPerMinute: 75,
    fastestPerMinute: 75,
    pulsesAFlash: 1,
  });
  expect(rowCycle(row({ move: 'every-other' })).cycleMs).toBe(500);
});
