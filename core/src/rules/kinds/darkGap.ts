import { darkGapRing } from '../../coverage/ring.ts';
import { bearingsIn, FACE_SECTORS, sectorText } from '../../coverage/sectors.ts';
import type { RuleOf } from '../pack.ts';
import { faceSectorsWhere, faceText, roundUp, stateOf, type KindResult, type Subject } from '../subject.ts';

/** The longest time any bearing of a face sees less than the threshold, everything shut, whatever the drift. */
export function checkDarkGap(subject: Subject, rule: RuleOf<'dark-gap'>): KindResult {
  const faults = rule.stages.flatMap((stage) => {
    const state = stateOf(stage);
    const lit = subject.lit(state);
    const gaps = darkGapRing(lit, rule.thresholdCd);
    return rule.faces.flatMap((face) => {
      const sectors = faceSectorsWhere(face, (b) => (gaps[b] ?? 0) > rule.maxMs);
      if (sectors.length === 0) return [];
      const worst = bearingsIn(FACE_SECTORS[face]).reduce((a, b) =>
        (gaps[b] ?? 0) > (gaps[a] ?? 0) ? b : a,
      );
      const longest = gaps[worst] ?? 0;
      const inGap = new Set(sectors.flatMap(bearingsIn));
      const toward = lit.filter(({ drive, share }) =>
        [...inGap].some((b) => drive.peakCd * (share[b] ?? 0) > 1),
      );
      const never = !Number.isFinite(longest);
      const what = never
        ? `no clock by itself reaches ${rule.thresholdCd} cd`
        : `dark for up to ${roundUp(longest)} ms at ${worst}°`;
      return [
        {
          sentence: `${what} ${faceText[face]} in ${subject.stateText(state)}; at most ${rule.maxMs} ms below ${rule.thresholdCd} cd are allowed; at ${sectors.map(sectorText).join(', ')}.`,
          figure: never ? null : { value: longest, unit: 'ms' as const },
          limits: [{ value: rule.maxMs, unit: 'ms' as const, sense: 'at most' as const }],
          evidence: { state, channelIds: toward.map(({ drive }) => drive.channelId), sectors },
        },
      ];
    });
  });
  return { faults, statesChecked: rule.stages.length };
}
