import { z } from 'zod';
import { Pattern } from '../timing/pattern.ts';
import { SPEED_PERCENT } from '../timing/recipes/speed.ts';
import { Clock } from '../timing/step.ts';
import { Id, Name } from '../words/names.ts';

/** How much later something begins than what it belongs to, ms. */
export const OffsetMs = z
  .int('must be whole milliseconds')
  .min(0, 'must be at least 0')
  .max(60_000, 'must be at most 60000');

/** A build has no more sync groups. */
export const MOST_GROUPS = 32;

/** Modules that share one clock. */
export const Group = z.strictObject({
  id: Id,
  name: Name,
  /** The group whose clock it runs on; null has one of its own. */
  followsId: Id.nullable(),
  /** Its speed against that group's, or against the patterns as they are made, %. */
  speedPercent: z
    .int('must be a whole percentage')
    .min(SPEED_PERCENT.min, `must be at least ${SPEED_PERCENT.min}`)
    .max(SPEED_PERCENT.max, `must be at most ${SPEED_PERCENT.max}`),
  /** It begins so much later, ms. */
  offsetMs: OffsetMs,
  /** What its clock reaches: heads that cannot follow it run free. */
  clock: Clock,
  /** A head that runs free in it is a fault, not a remark. */
  mustKeepStep: z.boolean(),
});
export type Group = z.infer<typeof Group>;

export const Timing = z.strictObject({
  /** The build's own patterns, beside the library. */
  patterns: z.array(Pattern).max(100, 'must be at most 100 own patterns'),
  groups: z.array(Group).max(MOST_GROUPS),
});
export type Timing = z.infer<typeof Timing>;

/** What work that may leave its limits complains of; null when it does not. */
export function failureOf(work: () => unknown): string | null {
  try {
    work();
    return null;
  } catch (error) {
    if (error instanceof RangeError) return error.message;
    throw error;
  }
}
