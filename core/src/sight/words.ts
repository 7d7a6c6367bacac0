import type { ApproachResult, Sighting } from './approach.ts';

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

/** "in fog by day". */
export const airText = ({ weather, around }: ApproachResult['approach']): string =>
  `${weather === 'clear' ? 'in clear air' : `in ${weather}`} ${around === 'day' ? 'by day' : `at ${around}`}`;

/** "Car from behind in fog by day: seen from 166 m, 214 m are needed to stop: 1.6 s too late." */
export function approachText(result: ApproachResult): string {
  const [normal] = result.sightings;
  const { approach, neededM } = result;
  return `${approach.name} ${airText(approach)}: ${seenText(normal)}, ${Math.round(neededM)} m are needed to stop: ${spareText(normal)}.`;
}
