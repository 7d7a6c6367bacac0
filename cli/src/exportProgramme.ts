import type { Build } from '@flarik/core/design/schema';
import { PROGRAMME_COLUMNS, programmeRows } from '@flarik/core/controls/programmeRows';
import { InputError } from '@flarik/core/words/errors';
import Papa from 'papaparse';
import type { Args } from './args.ts';
import type { Output } from './output.ts';
import { writeOut } from './writeOut.ts';

/** Writes the programme as a table of cues. */
export function exportProgramme(build: Build, { programme, file }: Args): Output {
  if (programme === undefined) throw new InputError('programme', 'say where to write: --programme OUT.csv');
  const text = Papa.unparse(
    { fields: [...PROGRAMME_COLUMNS], data: programmeRows(build) },
    { newline: '\n' },
  );
  writeOut(programme, `${text}\n`, 'utf8', file);
  return { exitCode: 0, text: `Wrote ${programme}` };
}
