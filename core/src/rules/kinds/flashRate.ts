import { drivesOf, rhythmOf } from '../../resolve/channels.ts';
import { bookOf } from '../../timing/book.ts';
import type { RuleOf } from '../pack.ts';
import { stateOf, type KindResult, type Subject } from '../subject.ts';

/** Flash cycles a minute between two limits; steady light is not a flash. */
export function checkFlashRate(subject: Subject, rule: RuleOf<'flash-rate'>): KindResult {
  const faults = subject.stages(rule).flatMap((stage) => {
    const flashing = drivesOf(subject.build, stage, 'day').filter((d) => !d.steady && d.spans.length > 0);
    return [...new Set(flashing.map(rhythmOf))].flatMap((rhythm) => {
      const drives = flashing.filter((d) => rhythmOf(d) === rhythm);
      const [first] = drives;
      if (first === undefined) return [];
      const { slowestPerMinute, fastestPerMinute } = first;
      if (slowestPerMinute >= rule.minPerMinute && fastestPerMinute <= rule.maxPerMinute) return [];
      const rate = slowestPerMinute < rule.minPerMinute ? slowestPerMinute : fastestPerMinute;
      const state = stateOf(stage);
      const shown = Math.round(rate * 10) / 10;
      return [
        {
          sentence: `${bookOf(subject.build).pattern(first.patternId).name} on ${subject.lampsText(drives)} flashes ${shown} times a minute in ${subject.stageName(stage)}; ${rule.minPerMinute} to ${rule.maxPerMinute} are allowed.`,
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
