import { z } from 'zod';
import { Name } from '../words/names.ts';

/** No more findings are let stand in a build. */
export const MOST_ACCEPTED = 400;

/** A finding that somebody lets stand, with who and why, as it was then. */
export const Acceptance = z.strictObject({
  /** The finding, by rule, subject and state. */
  id: z
    .string({ error: 'must be text' })
    .min(1, 'must not be empty')
    .max(4000, 'must be at most 4000 characters'),
  /** What it said. */
  sentence: z
    .string({ error: 'must be text' })
    .max(2000, 'must be at most 2000 characters')
    .regex(/^[^<>]*$/, 'must not contain < or >'),
  /** What was measured, in the unit of the finding; null where nothing was. */
  figure: z.number({ error: 'must be a number' }).nullable(),
  /** What was asked for, in the same unit. */
  limits: z.array(z.number({ error: 'must be a number' })).max(4),
  reason: Name,
  by: Name,
  on: z.iso.date('must be a date'),
});
export type Acceptance = z.infer<typeof Acceptance>;
