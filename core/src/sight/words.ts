import { FROM_M, type ApproachResult, type Sighting } from './approach.ts';
import type { JunctionResult } from './junction.ts';
import { HEAD_LAMPS_CD } from './reflective.ts';
import { formatQuantity } from '../words/quantity.ts';

/** "seen from 166 m", "seen from 3000 m on", "not seen 20 m off". */
export function detectionText({ seenM, beyond }: Sighting): string {
  if (beyond) return `detected at ${Math.round(seenM)} m or more`;
  return seenM === 0 ? 'not detected at 20 m' : `detected at ${Math.round(seenM)} m`;
}

/** "1.6 s too late", "at least 12 s to spare". */
export function timeMarginText({ marginS, beyond }: Sighting): string {
  if (!Number.isFinite(marginS)) return 'cannot stop on this gradient';
  return `margin ${beyond ? 'at least ' : ''}${marginS.toFixed(1).replace('-', '−')} s`;
}

/** "its reflective areas are seen from 182 m by head lamps that send 1000 cd toward them". */
export function reflectiveText(fromM: number, headLampsCd = HEAD_LAMPS_CD): string {
  const by = `(headlamps ${formatQuantity(headLampsCd, 'cd')})`;
  if (fromM === 0) return `reflective markings not detected at 20 m ${by}`;
  return `reflective markings detected at ${Math.round(fromM)} m${fromM >= FROM_M ? ' or more' : ''} ${by}`;
}

/** "in fog by day". */
export const airText = ({ weather, around }: ApproachResult['approach']): string =>
  `${weather === 'clear' ? 'clear air' : weather} · ${around}`;

/** "Car from behind in fog by day: seen from 166 m, 214 m are needed to stop: 1.6 s too late." */
export function approachText(result: ApproachResult): string {
  const [normal] = result.sightings;
  const { approach, neededM } = result;
  return `${approach.name} · ${airText(approach)}: ${detectionText(normal)}, stopping distance ${Math.round(neededM)} m, ${timeMarginText(normal)}.`;
}

/** "first seen with the nose 4.6 m before the line", "not seen before its nose is there". */
export const firstSeenText = ({ noseM }: Pick<JunctionResult, 'noseM'>): string =>
  noseM === null
    ? 'not visible before the bumper reaches the line'
    : `first visible with the bumper ${noseM.toFixed(1)} m before the line`;
