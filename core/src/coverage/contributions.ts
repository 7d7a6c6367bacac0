import { meanLevel } from '../timing/timeline.ts';
import type { Colour } from '../words/colour.ts';
import type { LitChannel } from './ring.ts';

/** A lamp's part in what is seen from a bearing. */
export interface Contribution {
  readonly placementId: string;
  /** Of all its channels at span level 1, cd. */
  readonly peakCd: number;
  readonly powerCdsPerMin: number;
  readonly colours: readonly Colour[];
}

/** Channels below this are not worth a name, cd. */
const NAMED_CD = 0.5;

/** Who lights a bearing, the most optical power first. */
export function contributionsAt(lit: readonly LitChannel[], bearing: number): Contribution[] {
  const sums = new Map<string, { peakCd: number; power: number; colours: Set<Colour> }>();
  for (const { drive, share } of lit) {
    const cd = drive.peakCd * (share[bearing] ?? 0);
    if (cd < NAMED_CD) continue;
    const sum = sums.get(drive.placementId) ?? { peakCd: 0, power: 0, colours: new Set() };
    sum.peakCd += cd;
    sum.power += cd * 60 * meanLevel(drive);
    sum.colours.add(drive.colour);
    sums.set(drive.placementId, sum);
  }
  return [...sums]
    .map(([placementId, { peakCd, power, colours }]) => ({
      placementId,
      peakCd,
      powerCdsPerMin: power,
      colours: [...colours],
    }))
    .toSorted((a, b) => b.powerCdsPerMin - a.powerCdsPerMin);
}
