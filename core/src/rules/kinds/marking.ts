import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import type { Fixture } from '../../fixture/types.ts';
import { isWarning } from '../../resolve/channels.ts';
import { Name } from '../../words/names.ts';
import { defineRule } from '../define.ts';
import { textOf } from '../fields.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing } from '../layout/subject.ts';
import { textsOf } from '../piece.ts';
import { about } from '../subject.ts';

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
  sentenceParts: (rule) => [
    'Every warning lamp is approved as ',
    textsOf('approvals', rule.approvals, 'Accepted approvals, separated by semicolons'),
  ],
  findIssues: (subject, rule) => {
    const { lookup } = subject;
    const lamps = subject.lamps.filter((p) => isWarning(lookup.fixture(p.fixtureId)));
    const fixtures = [...new Set(lamps.map((p) => p.fixtureId))].map((id) => lookup.fixture(id));
    const of = (some: readonly Fixture[]) => lamps.filter((p) => some.some(({ id }) => id === p.fixtureId));
    const unknown = fixtures.filter(({ approvals }) => approvals.length === 0);
    const others = fixtures.filter(
      ({ approvals }) =>
        approvals.length > 0 && !approvals.some((approval) => rule.approvals.includes(approval)),
    );
    const asked = `Required: ${textOf(rule.approvals)}.`;
    return [
      ...others.map((fixture): IssueDraft => ({
        ...pointing(of([fixture])),
        subjects: [about('fixture', fixture.id)],
        sentence: `${fixture.name}: approved as ${textOf(fixture.approvals)}. ${asked}`,
      })),
      ...(unknown.length === 0
        ? []
        : [
            {
              ...pointing(of(unknown)),
              subjects: [about('topic', 'not entered')],
              outcome: 'cannot tell' as const,
              sentence: `no approval entered for ${namesOf(unknown)}. ${asked}`,
            },
          ]),
    ];
  },
});

/** So many fixtures are named. */
const NAMED = 3;

function namesOf(fixtures: readonly Fixture[]): string {
  const names = fixtures.slice(0, NAMED).map(({ name }) => name);
  const more = fixtures.length - names.length;
  return `${names.join(', ')}${more === 0 ? '' : ` and ${more} more`}`;
}
