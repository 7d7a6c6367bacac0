import { InputError } from '@flarik/core/words/errors';
import { statSync, writeFileSync } from 'node:fs';
import { fileTrouble } from './fileTrouble.ts';

/**
 * Writes a file, never over the one that was read.
 * @param read - the file that the answer comes from
 * @throws {InputError} it cannot be written; the file is named
 */
export function writeOut(file: string, text: string, as: 'latin1' | 'utf8', read: string): void {
  if (isSame(file, read)) throw new InputError(file, 'is the file that is read: it would be lost');
  try {
    writeFileSync(file, text, as);
  } catch (error) {
    throw new InputError(file, fileTrouble(error));
  }
}

/** Whether two paths lead to one file, by whatever links. */
function isSame(file: string, other: string): boolean {
  try {
    const [a, b] = [statSync(file), statSync(other)];
    return a.dev === b.dev && a.ino === b.ino;
  } catch {
    return false;
  }
}
