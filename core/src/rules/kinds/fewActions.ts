import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { defineRule } from '../define.ts';
import { figure } from '../piece.ts';

const actions = z.int().min(1).max(20);

/** How many actions of an operator lead to each stage and function from all warning off; what the vehicle does is free. */
export const fewActions = defineRule({
  kind: 'few-actions',
  title: 'Actions to each function',
  blank: { toHighestStage: 1, toOthers: 2 },
  home: 'controls',
  sees: 'programme',
  asksWhen: false,
  schema: z.strictObject({
    kind: z.literal('few-actions'),
    ...RULE_HEAD,
    toHighestStage: actions,
    toOthers: actions,
  }),
  sentenceParts: (rule) => [
    'Stage 3 takes at most ',
    figure('toHighestStage', rule.toHighestStage, 'Actions to stage 3', { min: 1, max: 20, whole: true }),
    ' and everything else at most ',
    figure('toOthers', rule.toOthers, 'Actions to everything else', { min: 1, max: 20, whole: true }),
    ' actions of an operator, from all warning off with the ignition on',
  ],
});
