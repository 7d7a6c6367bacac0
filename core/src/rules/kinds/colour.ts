import { COLOURS, type Colour } from '../../words/colour.ts';
import type { RuleOf } from '../pack.ts';
import { faceText, roundUp, stateOf, type KindResult, type Subject } from '../subject.ts';
import { newFaultsByPose, shownEvidence, shownToward } from './shown.ts';

/** Colours permitted or forbidden toward a face, by stage and by steady or flashing, in every pose. */
export function checkColour(subject: Subject, rule: RuleOf<'colour'>): KindResult {
  const listed = new Set<Colour>(rule.colours);
  const forbidden = COLOURS.filter((c) => listed.has(c) === (rule.verdict === 'never'));
  const allowed =
    rule.verdict === 'only'
      ? `only ${rule.colours.join(' and ')} may`
      : `${rule.colours.join(' and ')} may not`;
  const kind = rule.light === 'any' ? '' : `${rule.light} `;
  const faults = subject.stages(rule).flatMap((stage) =>
    rule.faces.flatMap((face) =>
      newFaultsByPose(subject, (open) => {
        const state = stateOf(stage, open, subject.brightest);
        const lit = subject
          .lit(state)
          .filter(({ drive }) => rule.light === 'any' || drive.steady === (rule.light === 'steady'));
        return forbidden.flatMap((colour) => {
          const shown = shownToward(
            lit.filter(({ drive }) => drive.colour === colour),
            face,
            rule.aboveCd,
          );
          if (shown === null) return [];
          const lamps = subject.lampsText(shown.channels.map((c) => c.drive));
          return [
            {
              sentence: `${kind}${colour} shows ${faceText[face]} from ${lamps} in ${subject.stateText(state)}, up to ${roundUp(shown.peakCd)} cd at ${shown.bearing}°; ${allowed}.`,
              figure: { value: shown.peakCd, unit: 'cd' as const },
              limits: [{ value: rule.aboveCd, unit: 'cd' as const, sense: 'at most' as const }],
              evidence: shownEvidence(shown, state),
            },
          ];
        });
      }),
    ),
  );
  return { faults, statesChecked: subject.stages(rule).length * subject.poses.length };
}
