import { MAX_BUILD_BYTES, tooLarge } from '@flarik/core/words/json';
import { readBuildText } from '@flarik/core/rules/document';
import { readFileSync, statSync } from 'node:fs';
import type { Build } from '@flarik/core/design/schema';
import { InputError } from '@flarik/core/words/errors';
import { fileTrouble } from './fileTrouble.ts';

/**
 * The build in a file.
 * @throws {InputError} no such file, too large, or not a build; the file is named
 */
export function readBuildFile(file: string): Build {
  try {
    const { size } = statSync(file);
    if (size > MAX_BUILD_BYTES) throw new InputError('', tooLarge('build file', size));
    return readBuildText(textOf(readFileSync(file)));
  } catch (error) {
    if (error instanceof InputError) throw new InputError(file, error.message);
    throw new InputError(file, fileTrouble(error));
  }
}

/** @throws {InputError} not UTF-8 */
function textOf(bytes: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new InputError('', 'is not UTF-8 text; save it as UTF-8');
  }
}
