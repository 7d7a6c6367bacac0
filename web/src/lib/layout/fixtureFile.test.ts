import { describe, expect, test } from 'vitest';
import { CATALOGUE } from '@flarik/core/fixture/catalogue/catalogue';
import { fixtureTable, readFixtureTable } from './fixtureFile';

describe('a CSV table of fixtures', () => {
  test('goes out and comes in: quotes, commas and JSON in cells and all', () => {
    const text = fixtureTable(CATALOGUE);
    const { fixtures, errors } = readFixtureTable('all.csv', text);
    expect(errors).toEqual([]);
    expect(fixtures.map((f) => f.id)).toEqual(CATALOGUE.map((f) => f.id));
    expect(fixtureTable(fixtures)).toBe(text);
  });
  test('as a spreadsheet writes it: a byte order mark, semicolons, CRLF, empty rows', () => {
    const [first] = CATALOGUE;
    if (first === undefined) throw new Error('the catalogue is not empty');
    const rows = fixtureTable([first]).trim().split('\n');
    const asSpreadsheet = `\uFEFF${rows.join('\r\n')}\r\n\r\n`;
    expect(readFixtureTable('sheet.csv', asSpreadsheet).fixtures).toHaveLength(1);
  });
  test('a row that is too short names itself', () => {
    const [heading = ''] = fixtureTable([]).split('\n');
    const { errors } = readFixtureTable('short.csv', `${heading}\nown-1,Own\n`);
    expect(errors[0]?.row).toBe(2);
  });
  test('no rows, too many rows, too many bytes', () => {
    expect(() => readFixtureTable('e.csv', 'id,name\n')).toThrow(/^e\.csv: contains no row of fixtures/);
    expect(() => readFixtureTable('e.csv', `id\n${'x\n'.repeat(201)}`)).toThrow(/has more than 200 rows/);
    expect(() => readFixtureTable('e.csv', 'x'.repeat(2_000_001))).toThrow(
      /the table is too large: 1\.9 MB, at most 0\.25 MB/,
    );
    expect(() => readFixtureTable('e.csv', ','.repeat(199_999))).toThrow(/has 200000 columns, at most 200/);
    expect(() => readFixtureTable('e.csv', `id,name\n${'\n'.repeat(200_000)}`)).toThrow(/contains no row/);
  });
});
