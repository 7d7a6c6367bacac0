import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { figure } from '../piece.ts';

/** How much more warning light may come on by itself toward a side where a door or hatch stands open, and people with it. */
export const lightAtDoors = defineRule({
  kind: 'light-at-doors',
  title: 'Light at open doors',
  blank: { times: 2 },
  home: 'controls',
  sees: 'programme',
  asksWhen: false,
  schema: z.strictObject({ kind: z.literal('light-at-doors'), ...RULE_HEAD, times: positive }),
  sentenceParts: (rule) => [
    'Warning light toward a side with an open door or hatch rises automatically to at most ',
    figure('times', rule.times, 'Most growth, times'),
    ' times what it was',
  ],
});
