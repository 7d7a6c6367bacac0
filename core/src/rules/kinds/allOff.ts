import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { defineRule } from '../define.ts';
import { figure } from '../piece.ts';

/** An operator can switch all warning off from every state that the controls can reach, in few actions. */
export const allOff = defineRule({
  kind: 'all-off',
  title: 'Switching all warning off',
  blank: { actionsToOff: 2 },
  home: 'controls',
  sees: 'programme',
  asksWhen: false,
  schema: z.strictObject({
    kind: z.literal('all-off'),
    ...RULE_HEAD,
    actionsToOff: z.int().min(1).max(20),
  }),
  sentenceParts: (rule) => [
    'From every state an operator can switch all warning off, the key left on, in at most ',
    figure('actionsToOff', rule.actionsToOff, 'Actions to all warning off', { min: 1, max: 20, whole: true }),
    ' actions',
  ],
});
