import { FROM_M, type ApproachResult, type Sighting } from './approach.ts';
import type { JunctionResult } from './junction.ts';
import { HEAD_LAMPS_CD } from './reflective.ts';

/** "seen from 166 m", "seen from 3000 m on", "not seen 20 m off". */
export function seenText({ seenM, beyond }: Sighting): string {
  if (beyond) return `seen from ${Math.round(seenM)} m or more`;
  return seenM === 0 ? 'not seen 20 m off' : `seen from ${Math.round(seenM)} m`;
}

/** "1.6 s too late", "at least 12 s to spare". */
export function spareText({ marginS, beyond }: Sighting): string {
  if (!Number.isFinite(marginS)) return 'no brake holds on this grade';
  const s = Math.abs(marginS).toFixed(1);
  return marginS < 0 ? `${s} s too late` : `${beyond ? 'at least ' : ''}${s} s to spare`;
}

/** "its reflective areas are seen from 182 m by head lamps that send 1000 cd toward them". */
export function reflectiveText(fromM: number, headLampsCd = HEAD_LAMPS_CD): string {
  const by = `by head lamps that send ${headLampsCd} cd toward them`;
  if (fromM === 0) return `its reflective areas are not seen 20 m off ${by}`;
  return `its reflective areas are seen from ${Math.round(fromM)} m${fromM >= FROM_M ? ' or more' : ''} ${by}`;
}

/** "in fog by day". */
export const airText = ({ weather, around }: ApproachResult['approach']): string =>
  `${weather === 'clear' ? 'in clear air' : `in ${weather}`} ${around === 'day' ? 'by day' : `at ${around}`}`;

/** "Car from behind in fog by day: seen from 166 m, 214 m are needed to stop: 1.6 s too late." */
export function approachText(result: ApproachResult): string {
  const [normal] = result.sightings;
  const { approach, neededM } = result;
  return `${approach.name} ${airText(approach)}: ${seenText(normal)}, ${Math.round(neededM)} m are needed to stop: ${spareText(normal)}.`;
}

/** "first seen with the nose 4.6 m before the line", "not seen before its nose is there". */
export const firstSeenText = ({ noseM }: Pick<JunctionResult, 'noseM'>): string =>
  noseM === null
    ? 'not seen before its nose is on the line'
    : `first seen with the nose ${noseM.toFixed(1)} m before the line`;
