import { z } from 'zod';
import { Colour } from '../words/colour.ts';
import { Id, Name, Remark } from '../words/names.ts';
import { RuleFace, Severity } from '../rules/pack.ts';

export const DUTIES = [
  'patrol',
  'unmarked',
  'command',
  'transport',
  'rescue',
  'fire attack',
  'roadside work',
  'convoy',
  'marshalling',
  'other',
] as const;

const base = { id: Id, severity: Severity };
const faces = z.array(RuleFace).min(1, 'must name at least one face');
const colours = z.array(Colour).min(1, 'must name at least one colour');
const ZoneIds = z.array(Id).max(80);

/** What the agency asks for or forbids, in a form that can be checked. */
export const Constraint = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('lowest-lamp'), ...base, heightM: z.number().min(0).max(4) }),
    /** In these zones; in none at all when the list is empty. */
    z.strictObject({ kind: z.literal('no-holes'), ...base, zoneIds: ZoneIds }),
    z.strictObject({ kind: z.literal('only-colours'), ...base, colours, faces }),
    z.strictObject({ kind: z.literal('never-colours'), ...base, colours, faces }),
    z.strictObject({ kind: z.literal('unseen-when-off'), ...base, atMost: z.int().min(0).max(200) }),
    z.strictObject({ kind: z.literal('spend-at-most'), ...base, minor: z.int().min(0).max(1e10) }),
    z.strictObject({ kind: z.literal('keep-head'), ...base, placementId: Id }),
    z.strictObject({ kind: z.literal('leave-factory-lamp'), ...base, lampId: Id }),
    z.strictObject({
      kind: z.literal('spare-outputs'),
      ...base,
      outputs: z.int().min(1).max(512),
      spare: z.int().min(0).max(512),
    }),
    /** Lamps on these zones still serve their face with these stops open. */
    z.strictObject({
      kind: z.literal('stay-visible'),
      ...base,
      zoneIds: ZoneIds.min(1, 'must name at least one zone'),
      open: z.array(Id).min(1, 'must name what stands open').max(16),
    }),
  ],
  {
    error:
      'must be lowest-lamp, no-holes, only-colours, never-colours, unseen-when-off, spend-at-most, keep-head, leave-factory-lamp, spare-outputs or stay-visible',
  },
);
export type Constraint = z.infer<typeof Constraint>;
export type ConstraintKind = Constraint['kind'];

/** Every kind, with how it is called where one is chosen. */
export const constraintName: Readonly<Record<ConstraintKind, string>> = {
  'lowest-lamp': 'Nothing below a height',
  'no-holes': 'No holes',
  'only-colours': 'Only these colours to a side',
  'never-colours': 'Never these colours to a side',
  'unseen-when-off': 'Unseen when off',
  'spend-at-most': 'Spend at most',
  'keep-head': 'Keep a head',
  'leave-factory-lamp': 'Leave a factory lamp alone',
  'spare-outputs': 'Leave outputs spare',
  'stay-visible': 'Stay visible with parts open',
};
export const CONSTRAINT_KINDS: readonly ConstraintKind[] = Constraint.options.map((o) => o.shape.kind.value);
export type ConstraintOf<K extends ConstraintKind> = Extract<Constraint, { kind: K }>;

/** What the agency said in the first meeting. */
export const Brief = z.strictObject({
  agency: z
    .string()
    .max(80)
    .regex(/^[^<>]*$/, 'must not contain < or >'),
  duty: z.enum(DUTIES, { error: `must be one of ${DUTIES.join(', ')}` }),
  /** Where it drives, each with its own law. */
  jurisdictions: z.array(Name).max(12),
  /** Who works around the vehicle, and where. */
  people: Remark,
  mustHave: Remark,
  keptEquipment: Remark,
  /** What operators are used to and must stay the same. */
  habits: Remark,
  /** Room for later additions. */
  growth: Remark,
  /** ISO 4217. */
  currency: z.string().regex(/^[A-Z]{3}$/, 'must be a currency of three letters, such as EUR'),
  constraints: z.array(Constraint).max(60, 'must be at most 60 constraints'),
});
export type Brief = z.infer<typeof Brief>;

export const EMPTY_BRIEF: Brief = {
  agency: '',
  duty: 'other',
  jurisdictions: [],
  people: '',
  mustHave: '',
  keptEquipment: '',
  habits: '',
  growth: '',
  currency: 'EUR',
  constraints: [],
};
