import { InputError } from '@flarik/core/words/errors';
import { writeFileSync } from 'node:fs';
import { fileTrouble } from './fileTrouble.ts';

/**
 * Writes a file.
 * @throws {InputError} it cannot be written; the file is named
 */
export function writeOut(file: string, text: string, as: 'latin1' | 'utf8'): void {
  try {
    writeFileSync(file, text, as);
  } catch (error) {
    throw new InputError(file, fileTrouble(error));
  }
}
