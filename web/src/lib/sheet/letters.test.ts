import { expect, test } from 'vitest';
import type { Point2 } from '@flarik/core/geometry/polygon';
import type { Glow } from './glow';
import { lettersOf } from './letters';

const SIZE_M = 0.1;
const lens = (moduleId: string, at: Point2) => ({ moduleId, path: '', at });
const red: Glow = { colour: 'red', driven: true, level: 1, text: '' };
const blue: Glow = { colour: 'blue', driven: false, level: 0, text: '' };
const wide = { at: [1, 2], half: [0.5, 0.05] } as const;
const tall = { at: [1, 2], half: [0.1, 0.5] } as const;

test('above a lamp that is wide, each over its lens', () => {
  const lenses = [lens('a', [0.7, 2]), lens('b', [1.3, 2])];
  const letters = lettersOf({ ...wide, lenses }, (id) => (id === 'a' ? red : blue), SIZE_M);
  expect(letters.map(({ text, driven }) => [text, driven])).toEqual([
    ['R', true],
    ['B', false],
  ]);
  expect(letters.map(({ at }) => at)).toEqual([
    [0.7, 2.085],
    [1.3, 2.085],
  ]);
});

test('beside one that is tall, each row on its own side, level with its lens', () => {
  const lenses = [lens('rear', [0.95, 2.3]), lens('front', [1.05, 2.3]), lens('low', [1.05, 1.7])];
  const [rear, front, low] = lettersOf({ ...tall, lenses }, () => red, SIZE_M);
  expect(rear?.at[0]).toBeLessThan(0.9);
  expect(front?.at[0]).toBeGreaterThan(1.1);
  expect(rear?.at[1]).toBe(front?.at[1]);
  expect((front?.at[1] ?? 0) - (low?.at[1] ?? 0)).toBeCloseTo(0.6, 12);
});

test('one row in the middle keeps to one side, however it was rounded', () => {
  const lenses = [lens('a', [1 + 1e-9, 2.3]), lens('b', [1 - 1e-9, 1.7])];
  const [a, b] = lettersOf({ ...tall, lenses }, () => red, SIZE_M);
  expect(a?.at[0]).toBe(b?.at[0]);
});

test('none stands in another, however many lenses there are and however large they are written', () => {
  for (const sizeM of [0.02, 0.1, 0.3])
    for (const shape of [wide, tall]) {
      const lenses = Array.from({ length: 24 }, (_, i) =>
        lens(`m${i}`, [
          shape.at[0] - shape.half[0] + (2 * shape.half[0] * i) / 23,
          shape.at[1] - shape.half[1] + (2 * shape.half[1] * i) / 23,
        ]),
      );
      const letters = lettersOf({ ...shape, lenses }, () => red, sizeM);
      expect(letters.length).toBeGreaterThan(0);
      for (const [i, a] of letters.entries())
        for (const b of letters.slice(i + 1)) {
          const apart =
            Math.abs(a.at[0] - b.at[0]) >= 0.6 * sizeM || Math.abs(a.at[1] - b.at[1]) >= 0.9 * sizeM;
          expect(apart).toBe(true);
        }
    }
});

test('a lamp of one lens has its letter above it, and a lens that shows nothing has none', () => {
  const one = { at: [0, 0], half: [0.02, 0.1], lenses: [lens('a', [0, 0])] } as const;
  expect(lettersOf(one, () => red, SIZE_M)[0]?.at).toEqual([0, 0.135]);
  expect(lettersOf(one, () => undefined, SIZE_M)).toEqual([]);
});
