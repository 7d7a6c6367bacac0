/** Refractive indices in visible light. */
export const WATER = 1.333;
export const GLASS = 1.52;

/**
 * Share of unpolarised light that one smooth surface throws back like a mirror (Fresnel 1823).
 * @param cosIn - of the angle between the ray and the surface's normal; 1 falls straight on it, 0 grazes it
 * @param index - refractive index of what lies behind the surface, against air
 */
export function fresnel(cosIn: number, index: number): number {
  const cos = Math.min(1, Math.max(0, cosIn));
  const sinOut = Math.sqrt(1 - cos ** 2) / index;
  const cosOut = Math.sqrt(1 - sinOut ** 2);
  const across = (cos - index * cosOut) / (cos + index * cosOut);
  const along = (cosOut - index * cos) / (cosOut + index * cos);
  return (across ** 2 + along ** 2) / 2;
}

/** The same of a clear pane, off both its surfaces and all that goes to and fro between them: 2R/(1+R). */
export function paneReflectance(cosIn: number, index = GLASS): number {
  const one = fresnel(cosIn, index);
  return (2 * one) / (1 + one);
}
