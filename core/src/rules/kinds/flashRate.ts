import { drivesOf } from '../../timing/drive.ts';
import { flashFigures } from '../../timing/flash.ts';
import { patternOf } from '../../timing/library.ts';
import type { RuleOf } from '../pack.ts';
import { stateOf, type KindResult, type Subject } from '../subject.ts';

/** Flash cycles a minute between two limits; steady light is not a flash. */
export function checkFlashRate(subject: Subject, rule: RuleOf<'flash-rate'>): KindResult {
  const faults = subject.stages(rule).flatMap((stage) => {
    const flashing = drivesOf(subject.build, stage, 'day').filter((d) => !d.steady && d.spans.length > 0);
    return [...new Set(flashing.map((d) => d.patternId))].flatMap((patternId) => {
      const drives = flashing.filter((d) => d.patternId === patternId);
      const [first] = drives;
      if (first === undefined) return [];
      const rate = flashFigures(first.spans, first.cycleMs).cyclesPerMinute;
      if (rate >= rule.minPerMinute && rate <= rule.maxPerMinute) return [];
      const state = stateOf(stage);
      const shown = Math.round(rate * 10) / 10;
      return [
        {
          sentence: `${patternOf(patternId).name} on ${subject.lampsText(drives)} flashes ${shown} times a minute in ${subject.stageName(stage)}; ${rule.minPerMinute} to ${rule.maxPerMinute} are allowed.`,
          figure: { value: rate, unit: '/min' as const },
          limits: [
            { value: rule.minPerMinute, unit: '/min' as const, sense: 'at least' as const },
            { value: rule.maxPerMinute, unit: '/min' as const, sense: 'at most' as const },
          ],
          evidence: { state, channelIds: drives.map((d) => d.channelId), sectors: [] },
        },
      ];
    });
  });
  return { faults, statesChecked: subject.stages(rule).length };
}
