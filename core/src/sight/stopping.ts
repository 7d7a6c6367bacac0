/** Seconds until the brake is on, and deceleration on a dry and on a wet road, m/s² (AASHTO Green Book). */
const REACTION_S = 2.5;
const DRY_MS2 = 3.4;
const WET_MS2 = 2;
const GRAVITY_MS2 = 9.80665;

/** km/h as m/s. */
export const metresPerSecond = (kmh: number): number => kmh / 3.6;

/**
 * Stopping sight distance v t + v² / (2 (a + g G)) (AASHTO).
 *
 * @param gradePercent - uphill positive
 * @returns m; Infinity where the road falls so steeply that no brake holds
 */
export function stoppingM(speedKmh: number, gradePercent: number, wet: boolean): number {
  const v = metresPerSecond(speedKmh);
  const a = (wet ? WET_MS2 : DRY_MS2) + (GRAVITY_MS2 * gradePercent) / 100;
  return a <= 0 ? Infinity : v * REACTION_S + v ** 2 / (2 * a);
}

/**
 * How far an eye sees a lamp over a crest (AASHTO, crest vertical curves).
 *
 * @param lengthM - of the curve
 * @param changePercent - from the one grade to the other, in all; 0 or less is no crest
 * @returns m; Infinity where there is no crest
 */
export function overCrestM(lengthM: number, changePercent: number, eyeM: number, lampM: number): number {
  if (!(changePercent > 0)) return Infinity;
  const within = (Math.sqrt(2 * eyeM) + Math.sqrt(2 * lampM)) * Math.sqrt((100 * lengthM) / changePercent);
  if (within <= lengthM) return within;
  return lengthM / 2 + (100 * (Math.sqrt(eyeM) + Math.sqrt(lampM)) ** 2) / changePercent;
}
