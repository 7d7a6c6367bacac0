import { describe, expect, test } from 'vitest';
import { powerText, scaleOf, shadeOf, shareOfDecades } from './shades';

describe('shades', () => {
  test('go from dark to bright without a step back, and stand still beyond their ends', () => {
    const brightness = (share: number): number => {
      const [r, g, b] = shadeOf(share);
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    };
    for (let share = 0.01; share <= 1; share += 0.01)
      expect(brightness(share)).toBeGreaterThanOrEqual(brightness(share - 0.01) - 1);
    expect(shadeOf(-1)).toEqual(shadeOf(0));
    expect(shadeOf(7)).toEqual(shadeOf(1));
    expect(shadeOf(0)).toEqual([0x10, 0x18, 0x2b]);
    expect(shadeOf(1)).toEqual([0xff, 0xf2, 0xa8]);
  });

  test('a value lies between powers of ten; nothing is below them all', () => {
    expect(shareOfDecades(100, [1, 3])).toBeCloseTo(0.5, 12);
    expect(shareOfDecades(10, [1, 3])).toBe(0);
    expect(shareOfDecades(1, [1, 3])).toBe(-0.5);
    expect(shareOfDecades(0, [1, 3])).toBe(0);
    expect(scaleOf('power').unit).toBe('cd·s/min');
    expect(scaleOf('effective').decades).toEqual([0, 5]);
  });
});

test.each([
  [-1, '0.1'],
  [0, '1'],
  [3, '1k'],
  [5, '100k'],
  [6, '1M'],
])('ten to the power of %i is read as %s', (power, text) => {
  expect(powerText(power)).toBe(text);
});
