import { z } from 'zod';
import { InputError, parseInput } from '../words/errors.ts';
import { Colour } from '../words/colour.ts';
import { Service } from '../words/service.ts';
import { Id, Name, Remark } from '../words/names.ts';

export const RULE_PACK_FORMAT = 'flarik-rule-pack';

export const Severity = z.enum(['blocks', 'warns', 'advises', 'notes']);
export type Severity = z.infer<typeof Severity>;

export const RuleFace = z.enum(['front', 'right', 'rear', 'left']);
export type RuleFace = z.infer<typeof RuleFace>;

const StageNumber = z.union([z.literal(1), z.literal(2), z.literal(3)], { error: 'must be stage 1, 2 or 3' });

/** Which openings a floor must bear, each alone: nothing, doors, the hatch or tailgate or lift, the bonnet, shutters. */
export const PoseKind = z.enum(['shut', 'each-door-open', 'hatch-open', 'bonnet-open', 'each-shutter-open']);
export type PoseKind = z.infer<typeof PoseKind>;

const positive = z.number({ error: 'must be a number' }).positive('must be more than 0').max(1e9);

const base = {
  id: Id,
  severity: Severity,
  /** Where in its source the rule stands. */
  clause: Name,
  /** Services it speaks to; empty speaks to all. */
  services: z.array(Service),
  stages: z.array(StageNumber).min(1, 'must name at least one stage'),
};

const ColourRule = z.strictObject({
  kind: z.literal('colour'),
  ...base,
  /** "only" permits just these colours; "never" forbids them. */
  verdict: z.enum(['only', 'never']),
  colours: z.array(Colour).min(1),
  faces: z.array(RuleFace).min(1),
  light: z.enum(['steady', 'flashing', 'any']),
  /** Light counts as shown to a face above this, cd. */
  aboveCd: positive,
});

const FlashRateRule = z
  .strictObject({ kind: z.literal('flash-rate'), ...base, minPerMinute: positive, maxPerMinute: positive })
  .refine((r) => r.minPerMinute <= r.maxPerMinute, 'minPerMinute must not exceed maxPerMinute');

const PowerFloorRule = z.strictObject({
  kind: z.literal('power-floor'),
  ...base,
  faces: z.array(RuleFace).min(1),
  level: z.enum(['upper', 'lower', 'any']),
  ambient: z.enum(['day', 'night', 'any']),
  minCdsPerMin: positive,
  poses: z.array(PoseKind).min(1),
});

const DarkGapRule = z.strictObject({
  kind: z.literal('dark-gap'),
  ...base,
  faces: z.array(RuleFace).min(1),
  thresholdCd: positive,
  maxMs: positive,
});

const WhiteRearRule = z.strictObject({ kind: z.literal('white-rear'), ...base, aboveCd: positive });

const SyncPartnersRule = z.strictObject({ kind: z.literal('sync-partners'), ...base });

const PulsesRule = z.strictObject({
  kind: z.literal('pulses'),
  ...base,
  /** Pulses that may make up one flash. */
  most: z.int().min(1).max(20),
});

const SideDarkRule = z.strictObject({ kind: z.literal('side-dark'), ...base, maxMs: positive });

const FlashesASecondRule = z.strictObject({
  kind: z.literal('flashes-a-second'),
  ...base,
  faces: z.array(RuleFace).min(1),
  /** Lamps that send more than this toward a bearing count there, cd. */
  aboveCd: positive,
  most: z.int().min(1).max(100),
});

const PowerCeilingRule = z.strictObject({
  kind: z.literal('power-ceiling'),
  ...base,
  faces: z.array(RuleFace).min(1),
  ambient: z.enum(['day', 'night', 'any']),
  maxCdsPerMin: positive,
});

const RhythmsRule = z.strictObject({
  kind: z.literal('rhythms'),
  ...base,
  /** Lamps that send more than this toward a bearing count there, cd. */
  aboveCd: positive,
  most: z.int().min(1).max(100),
});

const PeakCurrentRule = z.strictObject({ kind: z.literal('peak-current'), ...base, maxA: positive });

const KINDS = [
  ColourRule,
  FlashRateRule,
  PowerFloorRule,
  DarkGapRule,
  WhiteRearRule,
  SyncPartnersRule,
  PulsesRule,
  SideDarkRule,
  FlashesASecondRule,
  PowerCeilingRule,
  RhythmsRule,
  PeakCurrentRule,
] as const;

export const Rule = z.discriminatedUnion('kind', KINDS, {
  error: ({ input }) => {
    const { kind } = z.looseObject({ kind: z.unknown() }).catch({ kind: undefined }).parse(input);
    const known = KINDS.map((k) => k.shape.kind.value).join(', ');
    return `unknown kind of rule '${String(kind)}'; known are ${known}`;
  },
});
export type Rule = z.infer<typeof Rule>;
export type RuleOf<K extends Rule['kind']> = Extract<Rule, { kind: K }>;

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
  notes: Remark,
  /** Optical centres above this are "upper", m. */
  upperAboveM: z.number().min(0.3).max(4),
  rules: z
    .array(Rule)
    .max(200)
    .superRefine((rules, ctx) => {
      const seen = new Set<string>();
      for (const [i, { id }] of rules.entries()) {
        if (seen.has(id)) ctx.addIssue({ code: 'custom', path: [i, 'id'], message: `'${id}' is used twice` });
        seen.add(id);
      }
    }),
});
export type RulePack = z.infer<typeof RulePack>;

/**
 * Reads a rule pack from outside data.
 * @throws {InputError} what is wrong and where
 */
export function readRulePack(data: unknown): RulePack {
  const head = z.looseObject({ format: z.literal(RULE_PACK_FORMAT) }).safeParse(data);
  if (!head.success)
    throw new InputError('format', `this is not a Flarik rule pack: 'format' must be '${RULE_PACK_FORMAT}'`);
  return parseInput(RulePack, data);
}
