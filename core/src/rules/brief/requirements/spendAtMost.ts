import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { fixtureCostMinor } from '../../../resolve/counts.ts';
import { atMost } from '../../finding.ts';
import { defineRequirement } from '../define.ts';
import { moneyText } from '../words.ts';
import { about } from '../../subject.ts';

/** The fixtures to buy cost no more than a sum. */
export const spendAtMost = defineRequirement({
  kind: 'spend-at-most',
  name: 'Spend at most',
  schema: z.strictObject({
    kind: z.literal('spend-at-most'),
    ...REQUIREMENT_HEAD,
    minor: z.int().min(0).max(1e10),
  }),
  first: (_, id) => ({ kind: 'spend-at-most', id, severity: 'warns', minor: 500_000 }),
  sentence: (build, wish) => `Fixtures for at most ${moneyText(wish.minor, build.brief.currency)}`,
  check: {
    onDocument: ({ build }, wish) => {
      const spent = fixtureCostMinor(build);
      if (spent <= wish.minor) return [];
      const { currency } = build.brief;
      return [
        {
          subjects: [about('topic', 'cost')],
          sentence: `fixture cost: ${moneyText(spent, currency)} (limit ${moneyText(wish.minor, currency)}).`,
          figure: { value: spent / 100, unit: 'money' as const },
          limits: [atMost(wish.minor / 100, 'money')],
        },
      ];
    },
  },
});
