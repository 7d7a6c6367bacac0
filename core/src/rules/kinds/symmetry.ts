import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { numberBetween } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { asymmetryFaults } from '../layout/asymmetry.ts';
import { oncePerPair } from '../layout/layout.ts';
import { figure } from '../piece.ts';

/** Left and right alike: in place within a measure, and in colour. */
export const symmetry = defineRule({
  kind: 'symmetry',
  title: 'Left and right alike',
  blank: { withinM: 0.02 },
  home: 'layout',
  sees: 'document',
  schema: z.strictObject({ kind: z.literal('symmetry'), ...RULE_HEAD, withinM: numberBetween(0.001, 1) }),
  sentenceParts: (rule) => [
    'Each lamp off the centre line has a counterpart, within ',
    figure('withinM', rule.withinM, 'May be off by, m', { min: 0.001, max: 1 }),
    ' m, in matching colours',
  ],
  findIssues: (subject, rule) => oncePerPair(subject, asymmetryFaults(subject, rule.withinM)),
});
