import { InputError } from '@flarik/core/words/errors';
import { tooLarge } from '@flarik/core/words/json';
import { CSV_COLUMNS, fixturesFromRows, rowOf, type RowError } from '@flarik/core/fixture/csv';
import type { Fixture } from '@flarik/core/fixture/types';
import Papa from 'papaparse';

/** No table of fixtures is larger, bytes: a kilobyte a row is more than all of its columns need. */
export const MAX_TABLE_BYTES = 256 * 1024;
/** Nor longer, rows; nor wider, columns. */
const MOST_ROWS = 200;
const MOST_COLUMNS = 200;

/**
 * Reads a table of fixtures: all of its rows, or what is wrong with which.
 * @throws {InputError} the file cannot be a table at all
 */
export function readFixtureTable(
  name: string,
  text: string,
): { readonly fixtures: readonly Fixture[]; readonly errors: readonly RowError[] } {
  if (text.length > MAX_TABLE_BYTES)
    throw new InputError(name, tooLarge('table', text.length, MAX_TABLE_BYTES));
  const [first = ''] = text.split('\n', 1);
  const columns = Math.max(...[',', ';', '\t', '|'].map((mark) => first.split(mark).length));
  if (columns > MOST_COLUMNS) throw new InputError(name, `has ${columns} columns, at most ${MOST_COLUMNS}`);
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    // One more than may be: what follows need not be looked at.
    preview: MOST_ROWS + 1,
    skipEmptyLines: 'greedy',
    transformHeader: (heading) => heading.trim(),
  });
  const heading = parsed.meta.fields ?? [];
  if (parsed.data.length === 0) throw new InputError(name, 'contains no row of fixtures');
  if (parsed.data.length > MOST_ROWS) throw new InputError(name, `has more than ${MOST_ROWS} rows`);
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
