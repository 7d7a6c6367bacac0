import { InputError } from './errors.ts';

/** No build file is larger than this, bytes. */
export const MAX_BUILD_BYTES = 4 * 1024 * 1024;

const megabytes = (bytes: number): string => String(Math.round((bytes / 1048576) * 100) / 100);

/** Says that a file is larger than it may be. */
export const tooLarge = (what: string, bytes: number, most = MAX_BUILD_BYTES): string =>
  `the ${what} is too large: ${(bytes / 1048576).toFixed(1)} MB, at most ${megabytes(most)} MB`;

/** No document of ours is nested deeper; what reads it goes as deep as it does. */
const MOST_NESTED = 64;

/** How deep brackets lie in each other, outside of strings; counting ends beyond the limit. */
function nested(text: string): number {
  let [depth, most, inString] = [0, 0, false];
  for (let i = 0; i < text.length && most <= MOST_NESTED; i++) {
    const char = text[i];
    if (inString) {
      if (char === '\\') i++;
      else if (char === '"') inString = false;
    } else if (char === '"') inString = true;
    else if (char === '{' || char === '[') most = Math.max(most, ++depth);
    else if (char === '}' || char === ']') depth--;
  }
  return most;
}

/**
 * JSON text as data, with limits. A byte-order mark before it, as some editors write, says nothing.
 * @param what - how to call the text in an error
 * @throws {InputError} too large, nested too deep, or not JSON
 */
export function parseJson(text: string, what: string): unknown {
  if (text.length > MAX_BUILD_BYTES) throw new InputError('', tooLarge(what, text.length));
  if (nested(text) > MOST_NESTED)
    throw new InputError('', `the ${what} is nested more than ${MOST_NESTED} deep`);
  try {
    return JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    const why = error instanceof Error ? error.message : 'unreadable';
    throw new InputError('', `the ${what} is not valid JSON: ${why}`);
  }
}
