import fc from 'fast-check';
import { expect, test } from 'vitest';
import { elevationsOf, elevationsText } from './elevations.ts';

test('a range is every whole degree of it, and read out as a range', () => {
  expect(elevationsOf('-2 to 2; 10')).toEqual([-2, -1, 0, 1, 2, 10]);
  expect(elevationsText([10, 1, 0, -1, -2, 2])).toBe('-2 to 2; 10');
  expect(elevationsText([0, 1])).toBe('0; 1');
  expect(elevationsText([0])).toBe('0');
});

test('what is no figure, runs backwards or is without end is not a number', () => {
  for (const text of ['high', '1 to', '5 to -5', '0 to 1e9', '1 to 2 to 3', '-Infinity to 0'])
    expect(elevationsOf(text), text).toEqual([NaN]);
  expect(elevationsOf(' ; ')).toEqual([]);
});

test('what is read out is read back', () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: -30, max: 30 }), { minLength: 1 }), (degrees) => {
      expect(elevationsOf(elevationsText(degrees)).toSorted((a, b) => a - b)).toEqual(
        degrees.toSorted((a, b) => a - b),
      );
    }),
  );
});
