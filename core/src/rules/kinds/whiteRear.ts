import type { RuleOf } from '../pack.ts';
import { roundUp, stateOf, type KindResult, type Subject } from '../subject.ts';
import { newFaultsByPose, shownEvidence, shownToward } from './shown.ts';

/**
 * No white to the rear except reversing, in every pose. The factory reversing lamps are the vehicle's own and
 * no stage drives them; what a stage lights is not reversing.
 */
export function checkWhiteRear(subject: Subject, rule: RuleOf<'white-rear'>): KindResult {
  const faults = subject.stages(rule).flatMap((stage) =>
    newFaultsByPose(subject, (open) => {
      const state = stateOf(stage, open, subject.brightest);
      const white = subject.lit(state).filter(({ drive }) => drive.colour === 'white');
      const shown = shownToward(white, 'rear', rule.aboveCd);
      if (shown === null) return [];
      const lamps = subject.lampsText(shown.channels.map((c) => c.drive));
      return [
        {
          sentence: `white shows to the rear from ${lamps} in ${subject.stateText(state)}, up to ${roundUp(shown.peakCd)} cd at ${shown.bearing}°; only reversing lamps may.`,
          figure: { value: shown.peakCd, unit: 'cd' as const },
          limits: [{ value: rule.aboveCd, unit: 'cd' as const, sense: 'at most' as const }],
          evidence: shownEvidence(shown, state),
        },
      ];
    }),
  );
  return { faults, statesChecked: subject.stages(rule).length * subject.poses.length };
}
