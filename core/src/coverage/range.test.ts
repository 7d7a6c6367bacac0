import { describe, expect, test } from 'vitest';
import { seenFromM, thresholdLx } from './range.ts';

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
