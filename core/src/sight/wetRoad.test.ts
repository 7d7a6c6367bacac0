import { expect, test } from 'vitest';
import { wetReflectance } from './wetRoad.ts';

test('water throws back 2 % of what falls straight down, all of what grazes it, more the flatter', () => {
  expect(wetReflectance(1)).toBeCloseTo((0.333 / 2.333) ** 2, 12);
  expect(wetReflectance(0)).toBe(1);
  // At Brewster's angle, tan = n, one polarisation is not thrown back at all.
  const brewster = Math.cos(Math.atan(1.333));
  const across = (brewster - 1.333 * Math.sqrt(1 - (1 - brewster ** 2) / 1.333 ** 2)) ** 2;
  const sum = (brewster + 1.333 * Math.sqrt(1 - (1 - brewster ** 2) / 1.333 ** 2)) ** 2;
  expect(wetReflectance(brewster)).toBeCloseTo(across / sum / 2, 12);
  let before = 1;
  for (let s = 0.02; s <= 1; s += 0.02) {
    const now = wetReflectance(s);
    expect(now).toBeLessThan(before);
    before = now;
  }
});
