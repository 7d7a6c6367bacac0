import { InputError } from '../words/errors.ts';
import { formatNumber } from '../words/quantity.ts';

/** A build contains no more objects and lists; the fullest demo build has 1,300. */
export const MOST_OBJECTS = 24_000;
/** All conditions of a build together contain no more parts; the fullest demo build has 60. */
export const MOST_CONDITION_PARTS = 4_000;

const CONDITION_KINDS: ReadonlySet<unknown> = new Set(['all', 'any', 'not', 'is', 'on']);

/**
 * Refuses a document that would take long to read, before its schema is tried: each list in it may be of an allowed
 * length, and all of them together still too many. Ends at the bound.
 * @param data - as parsed from JSON, of any shape
 * @throws {InputError} which bound it exceeds
 */
export function refuseTooLarge(data: unknown): void {
  let objects = 0;
  let conditionParts = 0;
  const left: unknown[] = [data];
  while (left.length > 0) {
    const value = left.pop();
    if (typeof value !== 'object' || value === null) continue;
    objects += 1;
    if (objects > MOST_OBJECTS)
      throw new InputError(
        '',
        `the build must contain at most ${formatNumber(MOST_OBJECTS)} objects and lists`,
      );
    if ('kind' in value && CONDITION_KINDS.has(value.kind)) conditionParts += 1;
    if (conditionParts > MOST_CONDITION_PARTS)
      throw new InputError(
        'controls',
        `all conditions together must contain at most ${formatNumber(MOST_CONDITION_PARTS)} parts`,
      );
    for (const part of Object.values(value)) if (typeof part === 'object') left.push(part);
  }
}
