import { InputError } from '@flarik/core/words/errors';
import { run } from './run.ts';

try {
  const { text, exitCode } = run(process.argv.slice(2));
  process.stdout.write(`${text}\n`);
  process.exitCode = exitCode;
} catch (error) {
  if (!(error instanceof InputError)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 2;
}
