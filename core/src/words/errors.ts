import type { z } from 'zod';

/** Input from outside that cannot be used: `path` names where in it, `reason` says what is wrong. */
export class InputError extends Error {
  readonly path: string;
  readonly reason: string;
  constructor(path: string, reason: string) {
    super(path === '' ? reason : `${path}: ${reason}`);
    this.name = 'InputError';
    this.path = path;
    this.reason = reason;
  }
}

/** A path as people write it: `placements[3].uM`. */
export const pathText = (path: readonly PropertyKey[]): string =>
  path.reduce<string>((text, key) => {
    if (typeof key === 'number') return `${text}[${key}]`;
    return text === '' ? String(key) : `${text}.${String(key)}`;
  }, '');

/**
 * Parses outside data by a schema.
 * @throws {InputError} the first thing wrong, and how many more there are
 */
export function parseInput<S extends z.ZodType>(schema: S, data: unknown): z.output<S> {
  const result = schema.safeParse(data);
  if (result.success) return result.data;
  const [first, ...more] = result.error.issues;
  const also = more.length === 0 ? '' : ` (and ${more.length} more)`;
  throw new InputError(pathText(first?.path ?? []), `${first?.message ?? 'not valid'}${also}`);
}
