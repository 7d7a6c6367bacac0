import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import { bookOf } from '../../timing/book.ts';
import { PATTERNS } from '../../timing/library.ts';
import { Id } from '../../words/names.ts';
import { defineRule } from '../define.ts';
import { fails, holds } from '../judgement.ts';
import { someOf } from '../piece.ts';
import { rhythmsOf } from '../rhythmsOf.ts';

const nameOf = (id: string): string => PATTERNS.find((p) => p.id === id)?.name ?? 'deleted pattern';

/** Lamps flash patterns of a list and no others; one's own are not on it. */
export const permittedPatterns = defineRule({
  kind: 'permitted-patterns',
  title: 'Patterns allowed',
  blank: { patterns: PATTERNS.slice(0, 1).map(({ id }) => id) },
  home: 'timing',
  sees: 'driven',
  schema: z.strictObject({
    kind: z.literal('permitted-patterns'),
    ...RULE_HEAD,
    patterns: z
      .array(Id)
      .min(1, 'must name at least one pattern')
      .max(200)
      .refine((ids) => new Set(ids).size === ids.length, 'must name each pattern once')
      .refine((ids) => ids.every((id) => PATTERNS.some((p) => p.id === id)), 'must name library patterns'),
  }),
  sentenceParts: (rule) => [
    'Warning lamps flash no other patterns than ',
    someOf(
      'patterns',
      rule.patterns,
      'Patterns allowed',
      PATTERNS.map(({ id }) => id),
      nameOf,
    ),
  ],
  monotonicity: () => 'hurts',
  check: (at, rule) =>
    rhythmsOf(at.drives('warning')).map(({ first, subjects, drives }) =>
      rule.patterns.includes(first.patternId)
        ? holds()
        : fails({
            subjects,
            sentence: `${at.lampsText(drives)}: pattern ${bookOf(at.build).pattern(first.patternId).name} is not permitted.`,
            channels: drives.map(channelOf),
          }),
    ),
});
