import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { figure } from '../piece.ts';

/** What a door or hatch that may stand open for hours switches on without the engine and without a timer. */
export const standingDraw = defineRule({
  kind: 'standing-draw',
  title: 'Draw at an open door',
  blank: { maxW: 60 },
  home: 'controls',
  sees: 'programme',
  asksWhen: false,
  schema: z.strictObject({ kind: z.literal('standing-draw'), ...RULE_HEAD, maxW: positive }),
  sentenceParts: (rule) => [
    'What an open door or hatch switches on draws at most ',
    figure('maxW', rule.maxW, 'Highest draw, W'),
    ' W with the engine stopped, where no timer ends it',
  ],
});
