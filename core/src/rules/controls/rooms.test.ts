import { expect, test } from 'vitest';
import { demoBuild } from '../../../test/reference/demo.ts';
import { ofKind } from '../../../test/reference/places.ts';
import { newPanel } from '../../arrange/panelEdits.ts';
import { putPanel, withControls } from '../../design/controlEdits.ts';
import type { CabPlace, Panel } from '../../design/panel.ts';
import type { Build } from '../../design/schema.ts';
import { readBuild } from '../document.ts';

const room: CabPlace = {
  id: 'console',
  name: 'Centre console',
  widthMm: 200,
  heightMm: 90,
  depthMm: 50,
  airbag: false,
  reached: true,
  replaceable: true,
};
const there = (patch: Partial<CabPlace>, ...panels: Partial<Panel>[]): Build =>
  panels.reduce<Build>(
    (b, panel, i) =>
      putPanel(b, {
        ...newPanel(`p${i}`, `Panel ${i + 1}`),
        widthMm: 180,
        heightMm: 60,
        depthMm: 40,
        cabPlaceId: 'console',
        ...panel,
      }),
    withControls(demoBuild('ks-13'), { cabPlaces: [{ ...room, ...patch }] }),
  );
const said = (kind: string, build: Build): string[] => ofKind(build, kind).map((f) => f.sentence);

test('a panel that fits its room is silent; one that does not is told by which measure', () => {
  expect(said('panel-size', there({}, {}))).toEqual([]);
  expect(said('panel-size', there({}, { widthMm: 201, depthMm: 51 }))).toEqual([
    'Panel 1: 201 mm wide (Centre console: 200 mm).',
    'Panel 1: 51 mm deep (Centre console: 50 mm).',
  ]);
  expect(said('panel-size', there({ widthMm: 0 }, { widthMm: 900 }))).toEqual([]);
});

test('a room taken twice is told, unless both stand in it side by side', () => {
  expect(said('room-taken', there({}, { widthMm: 100 }, { widthMm: 100 }))).toEqual([]);
  expect(said('room-taken', there({}, {}, {}))).toEqual([
    'Panel 1 and Panel 2 share Centre console: 360 mm together (available 200 mm).',
  ]);
  expect(said('room-taken', there({ widthMm: 0 }, {}, {}))).toEqual([
    'Panel 1 and Panel 2 share Centre console. Its width is not entered.',
  ]);
});

test('airbags, reach and whether it comes out again', () => {
  expect(ofKind(there({ airbag: true }, {}), 'airbag').map((f) => f.severity)).toEqual(['blocks']);
  expect(said('panel-reach', there({ reached: false }, {}))).toEqual([
    'Panel 1 at Centre console: out of reach of the belted driver.',
  ]);
  expect(said('panel-reach', there({ reached: false }, { place: 'rear desk' }))).toEqual([]);
  expect(said('panel-built-in', there({ replaceable: false }, {}))).toEqual([
    'Panel 1 at Centre console cannot be replaced without dismantling the cab.',
  ]);
  for (const kind of ['airbag', 'panel-reach', 'panel-built-in'])
    expect(said(kind, there({}, {}))).toEqual([]);
});

test('a room that is not there, an input told twice and an old control on another are refused by name', () => {
  const car = demoBuild('ks-13');
  const old = { kind: 'button', label: 'A', column: 1, row: 1, functionIds: [] } as const;
  expect(() => readBuild(putPanel(car, { ...newPanel('p', 'P'), cabPlaceId: 'attic' }))).toThrow(
    /cabPlaceId: no place 'attic' in the cab/,
  );
  const twice = [1, 2].map(() => ({ input: 'gear', source: 'wire' as const, note: '' }));
  expect(() => readBuild(withControls(car, { triggers: twice }))).toThrow(
    /controls\.triggers\[1\]\.input: 'gear' is listed twice/,
  );
  expect(() =>
    readBuild(withControls(car, { triggers: [{ input: 'ghost', source: 'wire', note: '' }] })),
  ).toThrow(/no input 'ghost'/);
  expect(() =>
    readBuild(
      withControls(car, {
        oldPanel: [
          { ...old, id: 'a' },
          { ...old, id: 'b' },
        ].map((o) => ({ ...o, functionIds: [] })),
      }),
    ),
  ).toThrow(/controls\.oldPanel\[1\]: is in the same cell as 'a'/);
  expect(() =>
    readBuild(withControls(car, { oldPanel: [{ ...old, id: 'a', functionIds: ['ghost'] }] })),
  ).toThrow(/functionIds\[0\]: no function 'ghost'/);
});
