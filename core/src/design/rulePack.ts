import { z } from 'zod';
import { LONGEST_DEG } from '../words/elevations.ts';
import { Id, Name, FreeText } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';
import { Service } from '../words/service.ts';
import { Severity } from '../words/severity.ts';
import { Condition, depthOf, MOST_DEPTH } from './condition.ts';

export const RULE_PACK_FORMAT = 'flarik-rule-pack';

/** A list without repeats, of at least one. */
export const listOf = <T extends z.ZodType<string | number>>(item: T, what: string, most = 16) =>
  z
    .array(item)
    .min(1, `must name at least one ${what}`)
    .max(most, `must name each ${what} once, and no more than ${most}`)
    .refine((items) => new Set(items).size === items.length, `must name each ${what} once`);

/** The modes of warning that a rule can speak of: stage 1, 2 and 3. */
export const Mode = z.union([z.literal(1), z.literal(2), z.literal(3)], { error: 'must be stage 1, 2 or 3' });
export type Mode = z.infer<typeof Mode>;
export const MODES: readonly Mode[] = [1, 2, 3];

/** What every rule says, whatever its kind. */
export const RULE_HEAD = {
  id: Id,
  severity: Severity,
  /** Where in its source the rule stands. */
  clause: Name,
  /** Services it speaks to; empty speaks to all. */
  services: z
    .array(Service)
    .max(16)
    .refine((s) => new Set(s).size === s.length, 'must name each service once'),
  stages: listOf(Mode, 'stage'),
  /** What must be so besides, about inputs; null speaks always. Judged over the states the controls can reach. */
  when: Condition.refine(
    (c) => depthOf(c) <= MOST_DEPTH,
    `must be nested at most ${MOST_DEPTH} deep`,
  ).nullable(),
  /** Where it looks from the level of the light, degrees up: at each of these. */
  elevationsDeg: listOf(numberBetween(-30, 30), 'elevation', LONGEST_DEG + 1),
};

/** A rule as a document holds it; what else it says depends on its kind, which the floor of the rules reads. */
export const RuleData = z.looseObject({ kind: z.string({ error: 'must be a kind of rule' }), ...RULE_HEAD });
export type RuleData = z.infer<typeof RuleData>;
export type RuleHead = Pick<RuleData, keyof typeof RULE_HEAD>;

/** A rule or a wish named once in its list. */
export const uniqueList = <T extends { readonly id: string }>(
  items: readonly T[],
  ctx: z.core.$RefinementCtx<readonly T[]>,
): void => {
  const seen = new Set<string>();
  for (const [i, { id }] of items.entries()) {
    if (seen.has(id)) ctx.addIssue({ code: 'custom', path: [i, 'id'], message: `'${id}' is used twice` });
    seen.add(id);
  }
};

/** Rules as data, with where they come from and who checked them. */
export const RulePack = z.strictObject({
  format: z.literal(RULE_PACK_FORMAT, { error: `must be '${RULE_PACK_FORMAT}'` }),
  id: Id,
  name: Name,
  /** Made-up example or blank form; never the law itself. */
  status: z.enum(['example', 'form', 'own']),
  source: Name,
  edition: Name,
  checkedBy: z
    .string()
    .max(80)
    .regex(/^[^<>]*$/, 'must not contain < or >'),
  checkedOn: z.union([z.literal(''), z.iso.date()]),
  notes: FreeText,
  /** Where it is the law, by the names of the brief; empty is everywhere. */
  jurisdictions: z
    .array(Name)
    .max(12)
    .refine((names) => new Set(names).size === names.length, 'must name each jurisdiction once'),
  /** Optical centres above this are "upper", m. */
  upperAboveM: numberBetween(0.3, 4),
  rules: z.array(RuleData).max(200, 'must be at most 200 rules').superRefine(uniqueList),
});
export type RulePack = z.infer<typeof RulePack>;
