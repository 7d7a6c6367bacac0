import { z } from 'zod';
import { Id, Name, FreeText } from '../words/names.ts';
import { Severity } from '../words/severity.ts';

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
export type Duty = (typeof DUTIES)[number];

/** What every wish says, whatever its kind. */
export const REQUIREMENT_HEAD = { id: Id, severity: Severity };

/** What the agency asks for or forbids, as a document holds it; the rest depends on its kind, which the floor of the rules reads. */
export const RequirementData = z.looseObject({
  kind: z.string({ error: 'must be a kind of requirement' }),
  ...REQUIREMENT_HEAD,
});
export type RequirementData = z.infer<typeof RequirementData>;

/** Agency request in the first meeting. */
export const Brief = z.strictObject({
  agency: z
    .string()
    .max(80)
    .regex(/^[^<>]*$/, 'must not contain < or >'),
  duty: z.enum(DUTIES, { error: `must be one of ${DUTIES.join(', ')}` }),
  /** Where it drives, each with its own law. */
  jurisdictions: z.array(Name).max(12),
  /** Who works around the vehicle, and where. */
  people: FreeText,
  mustHave: FreeText,
  keptEquipment: FreeText,
  /** What operators are used to and must stay the same. */
  habits: FreeText,
  /** Room for later additions. */
  growth: FreeText,
  /** ISO 4217. */
  currency: z.string().regex(/^[A-Z]{3}$/, 'must be a currency of three letters, such as EUR'),
  /** The wishes that can be checked. */
  constraints: z.array(RequirementData).max(60, 'must be at most 60 requirements'),
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
