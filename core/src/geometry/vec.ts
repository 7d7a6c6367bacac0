/** A point or direction in body axes (ISO 8855): x forward, y left, z up; metres for points. */
export type Vec3 = readonly [x: number, y: number, z: number];

export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
/** By the root itself: `Math.hypot` guards against overflow that no metre comes near, at several times the cost. */
export const length = (a: Vec3): number => Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);

/**
 * Unit vector along `a`.
 * @throws {RangeError} `a` has no length
 */
export function unit(a: Vec3): Vec3 {
  const l = length(a);
  if (!(l > 0)) throw new RangeError('unit: a vector of no length has no direction');
  return scale(a, 1 / l);
}

/** The sum of `vectors[i] · weights[i]`. */
export function combine(...terms: readonly (readonly [Vec3, number])[]): Vec3 {
  return terms.reduce<Vec3>((sum, [v, k]) => add(sum, scale(v, k)), [0, 0, 0]);
}

/** Mirror image across the vehicle's centre plane (y → −y). */
export const mirrorY = (a: Vec3): Vec3 => [a[0], -a[1], a[2]];
