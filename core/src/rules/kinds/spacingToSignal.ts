import { z } from 'zod';
import { listOf, RULE_HEAD } from '../../design/rulePack.ts';
import { FACTORY_FUNCTIONS, FactoryFunction } from '../../words/factoryFunction.ts';
import { numberBetween } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { oncePerPair } from '../layout/layout.ts';
import { lampsNear } from '../layout/nearSignal.ts';
import { figure, someOf } from '../piece.ts';

/** Warning lamps stand clear of lamps of the maker's. */
export const spacingToSignal = defineRule({
  kind: 'spacing-to-signal',
  title: 'Distance from factory lamps',
  blank: { signals: ['turn'], leastM: 0.1 },
  home: 'layout',
  sees: 'document',
  schema: z.strictObject({
    kind: z.literal('spacing-to-signal'),
    ...RULE_HEAD,
    signals: listOf(FactoryFunction, 'lamp'),
    leastM: numberBetween(0.001, 2),
  }),
  sentenceParts: (rule) => [
    'Lenses of warning lamps are at least ',
    figure('leastM', rule.leastM, 'Least distance, m', { min: 0.001, max: 2 }),
    ' m from factory lamps for ',
    someOf('signals', rule.signals, 'Factory lamps', FACTORY_FUNCTIONS),
  ],
  findIssues: (subject, rule) => oncePerPair(subject, lampsNear(subject, rule.signals, rule.leastM)),
});
