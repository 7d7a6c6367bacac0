import type { Ambient } from '../words/ambient.ts';

/** Background luminances for day and night, cd/m². */
export const AMBIENT_LUMINANCE: Readonly<Record<Ambient, number>> = { day: 10_000, night: 1 };

/** Meteorological optical range of a clear day, m. */
export const CLEAR_AIR_M = 20_000;

/**
 * Illuminance at the eye that is just noticed against a background:
 * Et = 2.42e−7 (1 + √(0.4 L))² lx (Blaise; IALA Recommendation E-200-2).
 *
 * @param luminance - background, cd/m², ≥ 0
 */
export const thresholdLx = (luminance: number): number => 2.42e-7 * (1 + Math.sqrt(0.4 * luminance)) ** 2;

/**
 * Distance at which a light is just seen, by Allard's law (1876): E = I · 0.05^(d/V) / d².
 *
 * @param intensityCd - effective intensity, cd, ≥ 0
 * @param opticalRangeM - meteorological optical range V (5 % contrast), m, > 0
 * @param luminance - background, cd/m²
 * @returns m, to a millimetre
 */
export function seenFromM(intensityCd: number, opticalRangeM: number, luminance: number): number {
  if (!(intensityCd > 0)) return 0;
  const threshold = thresholdLx(luminance);
  const excess = (d: number) => (intensityCd * 0.05 ** (d / opticalRangeM)) / d ** 2 - threshold;
  let near = 0;
  let far = Math.sqrt(intensityCd / threshold);
  while (far - near > 1e-3) {
    const middle = (near + far) / 2;
    if (excess(middle) > 0) near = middle;
    else far = middle;
  }
  return (near + far) / 2;
}
