import { powerRing } from '../../coverage/ring.ts';
import { FACE_BEARINGS, sectorText } from '../../coverage/sectors.ts';
import type { RuleOf } from '../pack.ts';
import {
  AMBIENTS,
  faceSectorsWhere,
  faceText,
  roundUp,
  stateOf,
  type KindResult,
  type Subject,
} from '../subject.ts';

/** At most so much optical power at any bearing of a face, everything shut: a rear that its crew can work behind. */
export function checkPowerCeiling(subject: Subject, rule: RuleOf<'power-ceiling'>): KindResult {
  const poses = subject.posesAmong([[]]);
  const ambients = subject.ambientsAmong(rule.ambient === 'any' ? AMBIENTS : [rule.ambient]);
  const stages = poses.length === 0 ? [] : subject.stages(rule);
  const faults = stages.flatMap((stage) =>
    ambients.flatMap((ambient) => {
      const state = stateOf(stage, [], ambient);
      const lit = subject.lit(state);
      const power = powerRing(lit);
      return rule.faces.flatMap((face) => {
        const sectors = faceSectorsWhere(face, (b) => (power[b] ?? 0) > rule.maxCdsPerMin);
        if (sectors.length === 0) return [];
        const worst = FACE_BEARINGS[face].reduce((a, b) => ((power[b] ?? 0) > (power[a] ?? 0) ? b : a));
        const most = power[worst] ?? 0;
        const toward = lit.filter(({ drive, share }) => drive.peakCd * (share[worst] ?? 0) > 1);
        return [
          {
            sentence: `too much light ${faceText[face]} in ${subject.stateText(state)}: ${roundUp(most)} of at most ${rule.maxCdsPerMin} cd·s/min at ${worst}°; so at ${sectors.map(sectorText).join(', ')}.`,
            figure: { value: most, unit: 'cd·s/min' as const },
            limits: [{ value: rule.maxCdsPerMin, unit: 'cd·s/min' as const, sense: 'at most' as const }],
            evidence: { state, channelIds: toward.map(({ drive }) => drive.channelId), sectors },
          },
        ];
      });
    }),
  );
  return { faults, statesChecked: stages.length * ambients.length };
}
