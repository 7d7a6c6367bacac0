import { bookOf } from '../../timing/book.ts';
import { drivesOf, rhythmOf } from '../../resolve/channels.ts';
import type { RuleOf } from '../pack.ts';
import { stateOf, type KindResult, type Subject } from '../subject.ts';

/** How many pulses make up one flash: more are read as flicker. */
export function checkPulses(subject: Subject, rule: RuleOf<'pulses'>): KindResult {
  const faults = subject.stages(rule).flatMap((stage) => {
    const many = drivesOf(subject.build, stage, 'day').filter((d) => d.pulsesAFlash > rule.most);
    return [...new Set(many.map(rhythmOf))].flatMap((rhythm) => {
      const drives = many.filter((d) => rhythmOf(d) === rhythm);
      const [first] = drives;
      if (first === undefined) return [];
      const { name } = bookOf(subject.build).pattern(first.patternId);
      return [
        {
          sentence: `${name} on ${subject.lampsText(drives)} has ${first.pulsesAFlash} pulses in one flash in ${subject.stageName(stage)}; at most ${rule.most} are allowed.`,
          figure: { value: first.pulsesAFlash, unit: 'pulses' as const },
          limits: [{ value: rule.most, unit: 'pulses' as const, sense: 'at most' as const }],
          evidence: { state: stateOf(stage), channelIds: drives.map((d) => d.channelId), sectors: [] },
        },
      ];
    });
  });
  return { faults, statesChecked: subject.stages(rule).length };
}
