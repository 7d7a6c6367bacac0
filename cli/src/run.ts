import { InputError } from '@flarik/core/words/errors';
import { readArgs } from './args.ts';
import { check } from './check.ts';
import { coverage } from './coverage.ts';
import { exportIes } from './exportIes.ts';
import { geometry } from './geometry.ts';
import { list } from './list.ts';
import type { Output } from './output.ts';
import { photometry } from './photometry.ts';
import { readBuildFile } from './readFile.ts';
import { waveform } from './waveform.ts';

/**
 * Runs one command.
 * @throws {InputError} bad input, in one sentence
 */
export function run(argv: readonly string[]): Output {
  const args = readArgs(argv);
  switch (args.command) {
    case 'check':
      return check(readBuildFile(args.file), args.json);
    case 'coverage':
      return coverage(readBuildFile(args.file), args);
    case 'waveform':
      return waveform(readBuildFile(args.file), args);
    case 'geometry':
      return geometry(readBuildFile(args.file), args);
    case 'photometry':
      return photometry(args);
    case 'list':
      return list(args.file, args.second === undefined ? null : readBuildFile(args.second), args.json);
    case 'export':
      return exportIes(readBuildFile(args.file), args);
    default:
      throw new InputError(
        '',
        `no command '${args.command}'; there are check, coverage, waveform, geometry, list, photometry and export`,
      );
  }
}
