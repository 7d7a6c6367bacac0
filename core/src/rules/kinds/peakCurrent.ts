import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { currentOf } from '../../resolve/current.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { about } from '../subject.ts';

/** The highest current at the worst alignment of the clocks, of every lamp that a stage drives. */
export const peakCurrent = defineRule({
  kind: 'peak-current',
  title: 'Peak current',
  blank: { maxA: 60 },
  home: 'timing',
  sees: 'driven',
  schema: z.strictObject({ kind: z.literal('peak-current'), ...RULE_HEAD, maxA: positive }),
  sentenceParts: (rule) => ['At most ', figure('maxA', rule.maxA, 'Most current, A'), ' A at the peak'],
  countsChannel: () => true,
  monotonicity: () => 'hurts',
  check: (at, rule) => {
    const drives = at.drives();
    const { value: worstA, exact } = currentOf(drives).worstA;
    const margin = roomBelow(worstA, rule.maxA);
    if (worstA <= rule.maxA) return [holds(margin)];
    const figure = (Math.ceil(worstA * 10 - 1e-9) / 10).toFixed(1);
    return [
      fails({
        outcome: exact ? 'fails' : 'cannot tell',
        subjects: [about('topic', 'current')],
        margin,
        sentence: `peak current: ${exact ? '' : 'up to '}${figure} A (limit ${rule.maxA} A).`,
        figure: { value: worstA, unit: 'A' },
        limits: [atMost(rule.maxA, 'A')],
        channels: drives.map(channelOf),
      }),
    ];
  },
});
