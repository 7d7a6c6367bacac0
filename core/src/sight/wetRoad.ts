/** Refractive index of water in visible light. */
const WATER = 1.333;

/**
 * Share of light that a film of water throws back like a mirror, unpolarised (Fresnel 1823).
 * @param sinElevation - sine of the angle between the ray and the water; 0 grazes it, 1 falls straight down
 */
export function wetReflectance(sinElevation: number): number {
  const cosIn = Math.min(1, Math.max(0, sinElevation));
  const sinOut = Math.sqrt(1 - cosIn ** 2) / WATER;
  const cosOut = Math.sqrt(1 - sinOut ** 2);
  const across = (cosIn - WATER * cosOut) / (cosIn + WATER * cosOut);
  const along = (cosOut - WATER * cosIn) / (cosOut + WATER * cosIn);
  return (across ** 2 + along ** 2) / 2;
}
