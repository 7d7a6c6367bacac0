import { InputError } from '@flarik/core/words/errors';
import { readArgs, wantsHelp } from './args.ts';
import { COMMANDS, usageOf } from './commands.ts';
import type { Output } from './output.ts';

/**
 * Runs one command.
 * @throws {InputError} bad input, in one sentence
 */
export function run(argv: readonly string[]): Output {
  const [name] = argv;
  if (name === undefined) throw new InputError('', usageOf(COMMANDS));
  const command = COMMANDS.find((c) => c.name === name);
  if (wantsHelp(argv)) return { exitCode: 0, text: usageOf(command === undefined ? COMMANDS : [command]) };
  if (command === undefined)
    throw new InputError('', `no command '${name}'; there are ${COMMANDS.map((c) => c.name).join(', ')}`);
  return command.run(readArgs(argv, command));
}
