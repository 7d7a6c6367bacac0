import { expect, test } from 'vitest';
import { fresnel, GLASS, paneReflectance, WATER } from './fresnel.ts';

test('water throws back 2 % of what falls straight down, all of what grazes it, more the flatter', () => {
  expect(fresnel(1, WATER)).toBeCloseTo((0.333 / 2.333) ** 2, 12);
  expect(fresnel(0, WATER)).toBe(1);
  // At Brewster's angle, tan = n, one polarisation is not thrown back at all.
  const brewster = Math.cos(Math.atan(1.333));
  const across = (brewster - 1.333 * Math.sqrt(1 - (1 - brewster ** 2) / 1.333 ** 2)) ** 2;
  const sum = (brewster + 1.333 * Math.sqrt(1 - (1 - brewster ** 2) / 1.333 ** 2)) ** 2;
  expect(fresnel(brewster, WATER)).toBeCloseTo(across / sum / 2, 12);
  let before = 1;
  for (let s = 0.02; s <= 1; s += 0.02) {
    const now = fresnel(s, WATER);
    expect(now).toBeLessThan(before);
    before = now;
  }
});

test('a pane throws back twice what a surface does, less what goes to and fro: 8.2 % straight on', () => {
  const one = (0.52 / 2.52) ** 2;
  expect(paneReflectance(1)).toBeCloseTo(0.0817, 4);
  // Counted out: what the second surface throws back, each time less what the first keeps in.
  let [back, inside] = [one, 1 - one];
  for (let times = 0; times < 40; times++) {
    back += inside * one * (1 - one);
    inside *= one ** 2;
  }
  expect(paneReflectance(1)).toBeCloseTo(back, 12);
  expect(paneReflectance(0)).toBe(1);
  expect(paneReflectance(0.5, GLASS)).toBeGreaterThan(paneReflectance(1));
});
