import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { bookOf } from '../../timing/book.ts';
import { defineRule } from '../define.ts';
import { countText } from '../fields.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { rhythmsOf } from '../rhythmsOf.ts';

/** How many pulses make up one flash: more are read as flicker. */
export const pulses = defineRule({
  kind: 'pulses',
  title: 'Pulses in a flash',
  blank: { most: 4 },
  home: 'timing',
  sees: 'driven',
  schema: z.strictObject({
    kind: z.literal('pulses'),
    ...RULE_HEAD,
    /** Pulses that may make up one flash. */
    most: z.int().min(1).max(20),
  }),
  sentenceParts: (rule) => [
    'At most ',
    figure('most', rule.most, 'Most pulses', { min: 1, max: 20, whole: true }),
    rule.most === 1 ? ' pulse' : ' pulses',
    ' in one flash',
  ],
  monotonicity: () => 'hurts',
  check: (at, rule) =>
    rhythmsOf(at.drives('warning')).map(({ first, subjects, drives }) => {
      const margin = roomBelow(first.pulsesAFlash, rule.most);
      if (margin >= 0) return holds(margin);
      return fails({
        subjects,
        margin,
        sentence: `${bookOf(at.build).pattern(first.patternId).name} on ${at.lampsText(drives)}: ${countText(first.pulsesAFlash, 'pulse')} per flash (limit ${rule.most}).`,
        figure: { value: first.pulsesAFlash, unit: 'pulses' },
        limits: [atMost(rule.most, 'pulses')],
        channels: drives.map(channelOf),
      });
    }),
});
