import { BEARINGS } from '../../coverage/field.ts';
import { sectorsWhere, sectorText } from '../../coverage/sectors.ts';
import { highestCd, rhythmOf, type Drive } from '../../resolve/channels.ts';
import type { RuleOf } from '../pack.ts';
import { stateOf, type KindResult, type Subject } from '../subject.ts';

/**
 * How many different rhythms are seen from one direction: many at once distract and tell nothing. One pattern on
 * clocks that drift is a rhythm on each.
 */
export function checkRhythms(subject: Subject, rule: RuleOf<'rhythms'>): KindResult {
  const poses = subject.posesAmong([[]]);
  const stages = poses.length === 0 ? [] : subject.stages(rule);
  const faults = stages.flatMap((stage) => {
    const state = stateOf(stage, [], subject.brightest);
    const lit = subject.lit(state).filter(({ drive }) => !drive.steady && drive.spans.length > 0);
    const drivesAt = (b: number): Drive[] =>
      lit.filter(({ drive, share }) => highestCd(drive) * (share[b] ?? 0) > rule.aboveCd).map((l) => l.drive);
    const count = Array.from(
      { length: BEARINGS },
      (_, b) => new Set(drivesAt(b).map((d) => `${rhythmOf(d)} ${d.clockId}`)).size,
    );
    const sectors = sectorsWhere((b) => (count[b] ?? 0) > rule.most);
    if (sectors.length === 0) return [];
    const most = Math.max(...count);
    const worst = count.indexOf(most);
    return [
      {
        sentence: `${most} different rhythms are seen from ${worst}° in ${subject.stateText(state)}; at most ${rule.most} are wanted; so at ${sectors.map(sectorText).join(', ')}.`,
        figure: { value: most, unit: 'rhythms' as const },
        limits: [{ value: rule.most, unit: 'rhythms' as const, sense: 'at most' as const }],
        evidence: { state, channelIds: drivesAt(worst).map((d) => d.channelId), sectors },
      },
    ];
  });
  return { faults, statesChecked: stages.length };
}
