import { InputError } from '@flarik/core/words/errors';
import { MAX_BUILD_BYTES, tooLarge } from '@flarik/core/words/json';

/**
 * The text of a file that was chosen; its size is looked at before anything is read.
 * @param what - how to call it in an error
 * @throws {InputError} larger than `most` bytes
 */
export async function textOf(file: File, what: string, most = MAX_BUILD_BYTES): Promise<string> {
  if (file.size > most) throw new InputError('', tooLarge(what, file.size, most));
  return file.text();
}
