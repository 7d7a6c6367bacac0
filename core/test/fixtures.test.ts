import { describe, expect, test } from 'vitest';
import {
  attachFile,
  detachFile,
  freeFixtureId,
  removeFixture,
  takeFixtures,
} from '../src/build/fixtureEdits.ts';
import { lookupOf } from '../src/build/lookup.ts';
import { formatOf, readTable } from '../src/build/photometry.ts';
import { readBuild, type PhotometryFile } from '../src/build/schema.ts';
import { CATALOGUE } from '../src/fixture/catalogue/catalogue.ts';
import { CSV_COLUMNS, fixturesFromRows, REQUIRED_COLUMNS, rowOf, type CsvRow } from '../src/fixture/csv.ts';
import { writeIes } from '../src/fixture/photometry/writeIes.ts';
import { litChannels } from '../src/coverage/ring.ts';
import { emptyBuild, put } from './reference/places.ts';

const plain: CsvRow = {
  id: 'own-head',
  name: 'Own head',
  kind: 'head',
  width_mm: '130',
  height_mm: '40',
  depth_mm: '20',
  weight_kg: '0.3',
  mounts: 'panel glass',
  stands: 'out',
  colour_slots: '2',
  red_cd: '2000',
  red_a: '0.8',
  white_cd: '4000',
  white_a: '1.2',
  module_count: '2',
  h50_deg: '20',
  v50_deg: '8',
  price: '99.50',
  install_min: '20',
};
const heading = Object.keys(plain);
const read = (...rows: CsvRow[]) => fixturesFromRows(heading, rows);

/** As a file keeps it: without the sign of nothing. */
const clean = (data: unknown): unknown => JSON.parse(JSON.stringify(data));

describe('fixtures as a table', () => {
  test('every fixture of the catalogue goes out and comes back the same', () => {
    const rows = CATALOGUE.map(rowOf);
    const { fixtures, errors } = fixturesFromRows(CSV_COLUMNS, rows);
    expect(errors).toEqual([]);
    expect(fixtures.map(rowOf)).toEqual(rows);
    for (const [i, f] of fixtures.entries()) expect(f.modules).toEqual(clean(CATALOGUE[i]?.modules));
  });

  test('a plain row: modules side by side, what is not said as usual', () => {
    const { fixtures, errors } = read(plain);
    expect(errors).toEqual([]);
    expect(fixtures[0]).toMatchObject({
      priceMinor: 9950,
      colourSlots: 2,
      outputs: { red: { peakCd: 2000, currentA: 0.8 }, white: { peakCd: 4000, currentA: 1.2 } },
      holes: 3,
      protection: 'not stated',
    });
    expect(fixtures[0]?.modules.map((m) => m.at[1])).toEqual([
      expect.closeTo(0.0325, 9),
      expect.closeTo(-0.0325, 9),
    ]);
  });

  test('every bad row is named with its column, and nothing is taken', () => {
    const { fixtures, errors } = read(
      plain,
      { ...plain, id: 'b', width_mm: 'wide', mounts: 'panel' },
      { ...plain, id: 'c', kind: 'toaster' },
      { ...plain, id: 'own-head' },
      { ...plain, id: 'e', red_cd: '', red_a: '', white_cd: '', white_a: '' },
      { ...plain, id: 'f', price: '' },
      { ...plain, id: 'g', mounts: 'ceiling' },
    );
    expect(fixtures).toEqual([]);
    expect(errors.map((e) => `${e.row} ${e.column}: ${e.reason}`)).toEqual([
      "3 width_mm: 'wide' is not a number",
      expect.stringMatching(/^4 kind: must be one of roof bar/),
      "5 id: 'own-head' is in row 2 already",
      '6 red_cd: no colour has an output',
      '7 price: is empty',
      expect.stringMatching(/^8 mounts: must be one of panel/),
    ]);
  });

  test('a heading that lacks a column, or has a strange one, is refused at once', () => {
    const without = heading.filter((c) => c !== 'price');
    expect(fixturesFromRows(without, [plain]).errors).toEqual([
      { row: 1, column: 'price', reason: 'the column is missing' },
    ]);
    expect(fixturesFromRows([...heading, 'smell'], [plain]).errors).toEqual([
      { row: 1, column: 'smell', reason: 'no such column' },
    ]);
    expect(REQUIRED_COLUMNS).toContain('id');
  });

  test('modules as JSON that is none is an error of its cell', () => {
    const { errors } = fixturesFromRows([...heading, 'modules_json'], [{ ...plain, modules_json: '[{' }]);
    expect(errors[0]).toEqual({ row: 2, column: 'modules_json', reason: 'is not valid JSON' });
  });
});

describe('fixtures of one’s own', () => {
  const [own] = read(plain).fixtures;
  if (own === undefined) throw new Error('a plain row is good');

  test('are taken, placed, and kept while they stand on the vehicle', () => {
    const { build } = takeFixtures(emptyBuild(), [own]);
    expect(freeFixtureId(build, 'own-head')).toBe('own-head-2');
    const lit = put(build, 'a', { fixture: 'own-head', zone: 'grille' });
    expect(readBuild(lit)).toEqual(lit);
    expect(removeFixture(lit, 'own-head')).toBe(lit);
    expect(removeFixture(build, 'own-head').fixtures).toEqual([]);
  });

  test('an id of the catalogue is refused, and so is another shape under lamps', () => {
    const taken = takeFixtures(emptyBuild(), [{ ...own, id: 'perimeter-head-2' }]);
    expect(taken.refused).toEqual(['perimeter-head-2']);
    expect(taken.build.fixtures).toEqual([]);
    const lit = put(takeFixtures(emptyBuild(), [own]).build, 'a', { fixture: 'own-head', zone: 'grille' });
    const fewer = { ...own, modules: own.modules.slice(0, 1) };
    expect(takeFixtures(lit, [fewer]).refused).toEqual(['own-head']);
    expect(takeFixtures(lit, [{ ...own, priceMinor: 1 }]).build.fixtures[0]?.priceMinor).toBe(1);
  });
});

describe('a measured file attached to a module', () => {
  /** 5000 cd ahead, by the cosine to both sides, nothing behind; level or not. */
  const ies = writeIes(
    { name: 'Test', watts: 10, sizeM: { width: 0.1, length: 0.02, height: 0.03 } },
    (c) => 5000 * Math.max(0, Math.cos((c * Math.PI) / 180)),
    { c: 5, gamma: 5 },
  );
  const file = (patch: Partial<PhotometryFile> = {}): PhotometryFile => ({
    id: 'f1',
    fileName: 'head.ies',
    format: 'ies',
    fixtureId: 'perimeter-head-2',
    moduleId: null,
    axis: 'upright',
    peakFor: 'red',
    text: ies,
    ...patch,
  });
  const lamp = put(emptyBuild(), 'a', { zone: 'grille' });
  const [off, one, two, three] = lamp.timing.stages;
  const lit: typeof lamp = {
    ...lamp,
    timing: {
      ...lamp.timing,
      stages: [
        off,
        one,
        { ...two, cues: [{ groupId: null, patternId: 'steady', nightPatternId: null, slot: 1, level: 1 }] },
        three,
      ],
    },
  };
  const cdAt = (build: typeof lamp, bearing: number): number => {
    const [channel] = litChannels(
      build,
      { stage: 2, open: [], ambient: 'day' },
      { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 },
    );
    return (channel?.drive.peakCd ?? 0) * (channel?.share[bearing] ?? 0);
  };

  test('gives its peak and its shape in every sum; detached, the catalogue’s come back', () => {
    expect(cdAt(lit, 0)).toBeCloseTo(2300, 6);
    const attached = attachFile(lit, file());
    expect(readBuild(attached)).toEqual(attached);
    expect(cdAt(attached, 0)).toBeCloseTo(5000, 3);
    expect(cdAt(attached, 45)).toBeCloseTo(5000 * Math.SQRT1_2, 0);
    expect(cdAt(detachFile(attached, 'f1'), 0)).toBeCloseTo(2300, 6);
  });

  test('its shape alone keeps the catalogue’s peak; a file for the module comes before one for all', () => {
    const shape = attachFile(lit, file({ peakFor: null }));
    expect(cdAt(shape, 0)).toBeCloseTo(2300, 6);
    const both = attachFile(attachFile(lit, file()), file({ id: 'f2', moduleId: 'm1', peakFor: null }));
    expect(both.photometry).toHaveLength(2);
    expect(cdAt(both, 0)).toBeCloseTo(2300, 6);
    expect(attachFile(both, file({ id: 'f3' })).photometry).toHaveLength(2);
  });

  test('a bad file is refused with its name and line, by the build too', () => {
    expect(formatOf('a.IES')).toBe('ies');
    expect(() => formatOf('a.pdf')).toThrow(/^a\.pdf: must be an \.ies or an \.ldt file/);
    expect(() => readTable('ies', 'TILT=NONE\n1 2 x')).toThrow(/line 2/);
    expect(() => readTable('ldt', 'nothing')).toThrow(/line \d+/);
    expect(() => readBuild({ ...lit, photometry: [file({ text: 'TILT=NONE\n1 x' })] })).toThrow(
      /^photometry\[0\]\.text: head\.ies: line 2/,
    );
  });

  test('modules of a fixture it does not know are not touched', () => {
    const other = attachFile(lit, file({ fixtureId: 'mini-head-1' }));
    expect(lookupOf(other).attached('perimeter-head-2', 'm1')).toBeNull();
    expect(cdAt(other, 0)).toBeCloseTo(2300, 6);
  });
});
