import { InputError } from '@flarik/core/words/errors';
import { run } from './run.ts';

/** What a command line is answered with. */
export interface CommandResult {
  readonly exitCode: 0 | 1 | 2;
  readonly stdout: string;
  readonly stderr: string;
}

/** Answers a command line: bad input is one sentence on the error stream, and exit 2. */
export function answer(argv: readonly string[]): CommandResult {
  try {
    const { text, exitCode } = run(argv);
    return { exitCode, stdout: `${text}\n`, stderr: '' };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return { exitCode: 2, stdout: '', stderr: `${error.message}\n` };
  }
}
