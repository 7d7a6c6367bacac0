import { darkGapRing } from '../../coverage/ring.ts';
import { bearingsIn, FACE_BEARINGS, sectorText } from '../../coverage/sectors.ts';
import type { State } from '../../state/state.ts';
import type { Fault } from '../finding.ts';
import type { RuleFace, RuleOf } from '../pack.ts';
import {
  AMBIENTS,
  faceSectorsWhere,
  faceText,
  roundUp,
  stateOf,
  type KindResult,
  type Subject,
} from '../subject.ts';

/**
 * The longest time any bearing of a face sees less than the threshold, everything shut, whatever the drift, by day
 * and dimmed by night. A night that only repeats the day's gaps says nothing new.
 */
export function checkDarkGap(subject: Subject, rule: RuleOf<'dark-gap'>): KindResult {
  const poses = subject.posesAmong([[]]);
  const ambients = subject.ambientsAmong(AMBIENTS);
  const stages = poses.length === 0 ? [] : subject.stages(rule);
  const faults = stages.flatMap((stage) =>
    rule.faces.flatMap((face) => {
      const known = new Set<number>();
      return ambients.flatMap((ambient) =>
        gapFaults(subject, rule, stateOf(stage, [], ambient), face, known),
      );
    }),
  );
  return { faults, statesChecked: stages.length * ambients.length };
}

function gapFaults(
  subject: Subject,
  rule: RuleOf<'dark-gap'>,
  state: State,
  face: RuleFace,
  known: Set<number>,
): Fault[] {
  const lit = subject.lit(state);
  const gaps = darkGapRing(lit, rule.thresholdCd, FACE_BEARINGS[face], rule.maxMs);
  const sectors = faceSectorsWhere(face, (b) => (gaps[b] ?? 0) > rule.maxMs);
  const fresh = sectors.flatMap(bearingsIn).filter((b) => !known.has(b));
  for (const b of fresh) known.add(b);
  if (fresh.length === 0) return [];
  const worst = FACE_BEARINGS[face].reduce((a, b) => ((gaps[b] ?? 0) > (gaps[a] ?? 0) ? b : a));
  const longest = gaps[worst] ?? 0;
  const never = !Number.isFinite(longest);
  const what = never
    ? `the light may never reach ${rule.thresholdCd} cd`
    : `dark for up to ${roundUp(longest)} ms at ${worst}°`;
  const toward = lit.filter(({ drive, share }) => fresh.some((b) => drive.peakCd * (share[b] ?? 0) > 1));
  return [
    {
      sentence: `${what} ${faceText[face]} in ${subject.stateText(state)}; at most ${rule.maxMs} ms below ${rule.thresholdCd} cd are allowed; at ${sectors.map(sectorText).join(', ')}.`,
      figure: never ? null : { value: longest, unit: 'ms' },
      limits: [{ value: rule.maxMs, unit: 'ms', sense: 'at most' }],
      evidence: { state, channelIds: toward.map(({ drive }) => drive.channelId), sectors },
    },
  ];
}
