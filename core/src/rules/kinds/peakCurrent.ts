import { currentOf } from '../../resolve/current.ts';
import { drivesOf } from '../../resolve/channels.ts';
import type { RuleOf } from '../pack.ts';
import { stateOf, type KindResult, type Subject } from '../subject.ts';

/** The highest current of a stage at the worst alignment of the clocks. */
export function checkPeakCurrent(subject: Subject, rule: RuleOf<'peak-current'>): KindResult {
  const faults = subject.stages(rule).flatMap((stage) => {
    const state = stateOf(stage, [], subject.brightest);
    const drives = drivesOf(subject.build, stage, subject.brightest);
    const { worstA } = currentOf(drives);
    if (worstA <= rule.maxA) return [];
    return [
      {
        sentence: `up to ${(Math.ceil(worstA * 10 - 1e-9) / 10).toFixed(1)} A flow at once in ${subject.stateText(state)}; at most ${rule.maxA} A are allowed.`,
        figure: { value: worstA, unit: 'A' as const },
        limits: [{ value: rule.maxA, unit: 'A' as const, sense: 'at most' as const }],
        evidence: { state, channelIds: drives.map((d) => d.channelId), sectors: [] },
      },
    ];
  });
  return { faults, statesChecked: subject.stages(rule).length };
}
