import type { Vec3 } from './vec.ts';

const RAD = Math.PI / 180;

/** Brings an angle into [0, 360) degrees. */
export const wrapDeg = (deg: number): number => ((deg % 360) + 360) % 360;

/** The angle between two bearings, the shorter way round: 0 to 180 degrees. */
export const apartDeg = (a: number, b: number): number => 180 - Math.abs(wrapDeg(a - b) - 180);

/**
 * Unit vector toward a bearing and elevation.
 *
 * @param bearingDeg - clockwise seen from above, 0 straight ahead, 90 right
 * @param elevationDeg - above the horizontal
 */
export function directionOf(bearingDeg: number, elevationDeg: number): Vec3 {
  const b = bearingDeg * RAD;
  const e = elevationDeg * RAD;
  return [Math.cos(e) * Math.cos(b), -Math.cos(e) * Math.sin(b), Math.sin(e)];
}

/** Bearing [0, 360) and elevation [−90, 90] of a direction, degrees; the inverse of `directionOf`. */
export function bearingOf([x, y, z]: Vec3): { bearingDeg: number; elevationDeg: number } {
  return {
    bearingDeg: wrapDeg(Math.atan2(-y, x) / RAD),
    elevationDeg: Math.atan2(z, Math.hypot(x, y)) / RAD,
  };
}
