/** A repeating light: piecewise constant, edges in whole milliseconds. */
export interface Waveform {
  readonly cycleMs: number;
  /** Lengths of the pieces, adding up to the cycle, ms. */
  readonly durationsMs: readonly number[];
  /** Intensity in each piece, cd. */
  readonly intensitiesCd: ArrayLike<number>;
}

/** Blondel and Rey's visual time constant, s. */
export const VISUAL_TIME_S = 0.2;

const at = (values: ArrayLike<number>, i: number): number => values[i] ?? 0;

/** Mean intensity over the cycle, cd. */
export function meanCd({ cycleMs, durationsMs, intensitiesCd }: Waveform): number {
  return durationsMs.reduce((sum, ms, i) => sum + ms * at(intensitiesCd, i), 0) / cycleMs;
}

/**
 * Optical power: ∫ I dt over a minute.
 * @returns cd·s/min. 1000 cd for 100 ms, 75 times a minute, is 7500.
 */
export const opticalPower = (w: Waveform): number => meanCd(w) * 60;

/**
 * Effective intensity of one flash (Blondel and Rey 1911): max over t1 < t2 of ∫ I dt / (a + t2 − t1), with
 * windows of at most one cycle. For a piecewise-constant light the best window begins and ends on edges.
 *
 * @param visualTimeS - a, s, > 0
 * @returns cd
 */
export function flashEffectiveCd(
  { durationsMs, intensitiesCd }: Waveform,
  visualTimeS = VISUAL_TIME_S,
): number {
  const pieces = durationsMs.length;
  let best = 0;
  for (let first = 0; first < pieces; first++) {
    let energy = 0;
    let span = 0;
    for (let k = 0; k < pieces; k++) {
      const i = (first + k) % pieces;
      const seconds = (durationsMs[i] ?? 0) / 1000;
      energy += at(intensitiesCd, i) * seconds;
      span += seconds;
      best = Math.max(best, energy / (visualTimeS + span));
    }
  }
  return best;
}

/**
 * Effective intensity of the repeating light, used for range: windows may span any number of cycles. A window
 * of n cycles and a part w has (nE + e) / (a + nT + w), which lies between e / (a + w) and the mean E / T; so
 * the supremum is the greater of the best single-cycle window and the mean, and steady light keeps its intensity.
 *
 * @returns cd
 */
export const effectiveCd = (w: Waveform, visualTimeS = VISUAL_TIME_S): number =>
  Math.max(flashEffectiveCd(w, visualTimeS), meanCd(w));

/**
 * Longest time in which the light stays below a threshold, running on from the cycle's end into its beginning.
 * @returns ms; 0 when never below, Infinity when always below
 */
export function longestDarkMs({ durationsMs, intensitiesCd }: Waveform, thresholdCd: number): number {
  const pieces = durationsMs.length;
  const lit = durationsMs.findIndex((_, i) => at(intensitiesCd, i) >= thresholdCd);
  if (lit === -1) return Infinity;
  let longest = 0;
  let dark = 0;
  for (let k = 1; k <= pieces; k++) {
    const i = (lit + k) % pieces;
    dark = at(intensitiesCd, i) >= thresholdCd ? 0 : dark + (durationsMs[i] ?? 0);
    longest = Math.max(longest, dark);
  }
  return longest;
}
