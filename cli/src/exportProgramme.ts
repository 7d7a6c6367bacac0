import type { Build } from '@flarik/core/design/schema';
import { PROGRAM_COLUMNS, programRows } from '@flarik/core/controls/programRows';
import { InputError } from '@flarik/core/words/errors';
import Papa from 'papaparse';
import type { Args } from './args.ts';
import type { Output } from './output.ts';
import { writeOut } from './writeOut.ts';

/** Writes the programme as a table of cues. */
export function exportProgram(build: Build, { program, file }: Args): Output {
  if (program === undefined) throw new InputError('program', 'give the output file: --program OUT.csv');
  const text = Papa.unparse({ fields: [...PROGRAM_COLUMNS], data: programRows(build) }, { newline: '\n' });
  writeOut(program, `${text}\n`, 'utf8', file);
  return { exitCode: 0, text: `Wrote ${program}` };
}
