import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { isWarning } from '../../resolve/channels.ts';
import { Name } from '../../words/names.ts';
import { defineRule } from '../define.ts';
import { textOf } from '../fields.ts';
import type { Said } from '../judgement.ts';
import { pointing } from '../layout/subject.ts';
import { textsOf } from '../piece.ts';

/** Every warning lamp is approved in one of some classes, by what the shop entered of its papers. */
export const marking = defineRule({
  kind: 'marking',
  title: 'Approvals of lamps',
  blank: { approvals: ['Class to be filled in'] },
  home: 'layout',
  sees: 'document',
  schema: z.strictObject({
    kind: z.literal('marking'),
    ...RULE_HEAD,
    approvals: z
      .array(Name)
      .min(1, 'must name at least one approval')
      .max(12, 'must be at most 12 approvals')
      .refine((names) => new Set(names).size === names.length, 'must name each approval once'),
  }),
  says: (rule) => [
    'Every warning lamp is approved as ',
    textsOf('approvals', rule.approvals, 'Approvals, any of which will do; a semicolon between'),
  ],
  faults: (subject, rule) => {
    const lamps = subject.lamps.filter((p) => isWarning(subject.lookup.fixture(p.fixtureId)));
    return [...new Set(lamps.map((p) => p.fixtureId))].flatMap((id): Said[] => {
      const fixture = subject.lookup.fixture(id);
      if (fixture.approvals.some((approval) => rule.approvals.includes(approval))) return [];
      const mine = lamps.filter((p) => p.fixtureId === id);
      const unknown = fixture.approvals.length === 0;
      return [
        {
          ...pointing(mine),
          about: id,
          outcome: unknown ? 'cannot tell' : 'fails',
          sentence: unknown
            ? `nobody has entered what ${fixture.name} is approved as; ${textOf(rule.approvals)} is asked for.`
            : `${fixture.name} is approved as ${textOf(fixture.approvals)}; ${textOf(rule.approvals)} is asked for.`,
        },
      ];
    });
  },
});
