import { InputError } from './errors.ts';

/** No build file is larger than this, bytes. */
export const MAX_BUILD_BYTES = 4 * 1024 * 1024;

export const tooLarge = (what: string, bytes: number): string =>
  `the ${what} is too large: ${(bytes / 1048576).toFixed(1)} MB, at most ${MAX_BUILD_BYTES / 1048576} MB`;

/**
 * JSON text as data, with limits.
 * @param what - how to call the text in an error
 * @throws {InputError} too large, or not JSON
 */
export function parseJson(text: string, what: string): unknown {
  if (text.length > MAX_BUILD_BYTES) throw new InputError('', tooLarge(what, text.length));
  try {
    return JSON.parse(text);
  } catch (error) {
    const why = error instanceof Error ? error.message : 'unreadable';
    throw new InputError('', `the ${what} is not valid JSON: ${why}`);
  }
}
