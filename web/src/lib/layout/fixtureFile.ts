import { InputError } from '@flarik/core/words/errors';
import { CSV_COLUMNS, fixturesFromRows, rowOf, type RowError } from '@flarik/core/fixture/csv';
import type { Fixture } from '@flarik/core/fixture/types';
import Papa from 'papaparse';

/** No table of fixtures is larger, characters. */
const MOST_CHARACTERS = 1_000_000;
/** Nor longer, rows. */
const MOST_ROWS = 200;

/**
 * Reads a table of fixtures: all of its rows, or what is wrong with which.
 * @throws {InputError} the file cannot be a table at all
 */
export function readFixtureTable(
  name: string,
  text: string,
): { readonly fixtures: readonly Fixture[]; readonly errors: readonly RowError[] } {
  if (text.length > MOST_CHARACTERS)
    throw new InputError(name, `is too large: at most ${MOST_CHARACTERS / 1e6} MB`);
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (heading) => heading.trim(),
  });
  const heading = parsed.meta.fields ?? [];
  if (parsed.data.length === 0) throw new InputError(name, 'contains no row of fixtures');
  if (parsed.data.length > MOST_ROWS)
    throw new InputError(name, `has ${parsed.data.length} rows, at most ${MOST_ROWS}`);
  const broken = parsed.errors.filter((e) => e.code !== 'UndetectableDelimiter');
  if (broken.length > 0)
    return {
      fixtures: [],
      errors: broken.map((e) => ({ row: (e.row ?? 0) + 2, column: '', reason: e.message })),
    };
  return fixturesFromRows(heading, parsed.data);
}

/** Fixtures as a table. */
export const fixtureTable = (fixtures: readonly Fixture[]): string =>
  Papa.unparse({ fields: [...CSV_COLUMNS], data: fixtures.map(rowOf) }, { newline: '\n' }) + '\n';
