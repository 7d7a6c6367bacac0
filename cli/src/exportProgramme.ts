import { writeFileSync } from 'node:fs';
import type { Build } from '@flarik/core/design/schema';
import { PROGRAMME_COLUMNS, programmeRows } from '@flarik/core/controls/programmeRows';
import { InputError } from '@flarik/core/words/errors';
import Papa from 'papaparse';
import type { Args } from './args.ts';
import type { Output } from './output.ts';

/** Writes the programme as a table of cues. */
export function exportProgramme(build: Build, { programme }: Args): Output {
  if (programme === undefined) throw new InputError('programme', 'say where to write: --programme OUT.csv');
  const text = Papa.unparse(
    { fields: [...PROGRAMME_COLUMNS], data: programmeRows(build) },
    { newline: '\n' },
  );
  try {
    writeFileSync(programme, `${text}\n`);
  } catch (error) {
    throw new InputError(programme, error instanceof Error ? error.message : String(error));
  }
  return { exitCode: 0, text: `Wrote ${programme}` };
}
