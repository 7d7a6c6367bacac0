import { FROM_M, type ApproachResult, type Sighting } from './approach.ts';
import type { JunctionResult } from './junction.ts';
import { HEAD_LAMPS_CD } from './reflective.ts';
import { formatQuantity } from '../words/quantity.ts';

/** "detected at 166 m", "detected at 3000 m or more", "not detected at 20 m". */
export function detectionText({ seenM, beyond }: Sighting): string {
  if (beyond) return `detected at ${Math.round(seenM)} m or more`;
  return seenM === 0 ? 'not detected at 20 m' : `detected at ${Math.round(seenM)} m`;
}

/** "margin −1.6 s", "margin at least 12.0 s". */
export function timeMarginText({ marginS, beyond }: Sighting): string {
  if (!Number.isFinite(marginS)) return 'cannot stop on this gradient';
  return `margin ${beyond ? 'at least ' : ''}${marginS.toFixed(1).replace('-', '−')} s`;
}

/** "reflective markings detected at 182 m (headlamps 1,000 cd)". */
export function reflectiveText(fromM: number, headLampsCd = HEAD_LAMPS_CD): string {
  const by = `(headlamps ${formatQuantity(headLampsCd, 'cd')})`;
  if (fromM === 0) return `reflective markings not detected at 20 m ${by}`;
  return `reflective markings detected at ${Math.round(fromM)} m${fromM >= FROM_M ? ' or more' : ''} ${by}`;
}

/** "fog · day". */
export const airText = ({ weather, around }: ApproachResult['approach']): string =>
  `${weather === 'clear' ? 'clear air' : weather} · ${around}`;

/** "Car from behind · fog · day: detected at 166 m, stopping distance 214 m, margin −1.6 s." */
export function approachText(result: ApproachResult): string {
  const [normal] = result.sightings;
  const { approach, neededM } = result;
  return `${approach.name} · ${airText(approach)}: ${detectionText(normal)}, stopping distance ${Math.round(neededM)} m, ${timeMarginText(normal)}.`;
}

/** "first visible with the bumper 4.6 m before the line", "not visible before the bumper reaches the line". */
export const firstSeenText = ({ noseM }: Pick<JunctionResult, 'noseM'>): string =>
  noseM === null
    ? 'not visible before the bumper reaches the line'
    : `first visible with the bumper ${noseM.toFixed(1)} m before the line`;
