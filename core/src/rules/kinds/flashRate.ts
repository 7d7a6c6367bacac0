import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { bookOf } from '../../timing/book.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { atLeast, atMost } from '../finding.ts';
import { fails, holds, roomAbove, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import { rhythmsOf } from '../rhythmsOf.ts';

/** Flashes a minute between two limits; steady light is not a flash. */
export const flashRate = defineRule({
  kind: 'flash-rate',
  title: 'Flash rate',
  blank: { minPerMinute: 60, maxPerMinute: 120 },
  home: 'timing',
  sees: 'driven',
  schema: z
    .strictObject({
      kind: z.literal('flash-rate'),
      ...RULE_HEAD,
      minPerMinute: positive,
      maxPerMinute: positive,
    })
    .refine((r) => r.minPerMinute <= r.maxPerMinute, 'minPerMinute must not exceed maxPerMinute'),
  sentenceParts: (rule) => [
    'Between ',
    figure('minPerMinute', rule.minPerMinute, 'Fewest flashes a minute'),
    ' and ',
    figure('maxPerMinute', rule.maxPerMinute, 'Most flashes a minute'),
    ' flashes a minute',
  ],
  monotonicity: () => 'hurts',
  check: (at, rule) =>
    rhythmsOf(at.drives('warning')).map(({ first, subjects, drives }) => {
      const { slowestPerMinute: slowest, fastestPerMinute: fastest } = first;
      const room = Math.min(roomAbove(slowest, rule.minPerMinute), roomBelow(fastest, rule.maxPerMinute));
      if (room >= 0) return holds(room);
      const rate = slowest < rule.minPerMinute ? slowest : fastest;
      return fails({
        subjects,
        margin: room,
        sentence: `${bookOf(at.build).pattern(first.patternId).name} on ${at.lampsText(drives)}: ${Math.round(rate * 10) / 10} flashes/min (permitted ${rule.minPerMinute} to ${rule.maxPerMinute}).`,
        figure: { value: rate, unit: '/min' },
        limits: [atLeast(rule.minPerMinute, '/min'), atMost(rule.maxPerMinute, '/min')],
        channels: drives.map(channelOf),
      });
    }),
});
