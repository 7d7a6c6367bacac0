import { addRequirement } from './briefEdits.ts';
import { readBuild } from '../rules/document.ts';
import { describe, expect, test } from 'vitest';
import { changePlacement, setInsert } from '../arrange/lamps.ts';
import { importFixtures } from './fixtureEdits.ts';
import { lookupOf } from '../resolve/lookup.ts';
import type { Build } from './schema.ts';
import { addOwn } from '../arrange/vehicleEdits.ts';
import { emptyBuild, put, ownZone } from '../../test/reference/places.ts';

const lamp = put(emptyBuild(), 'a', { zone: 'grille' });
const bar = put(emptyBuild(), 'a', { zone: 'roof', fixture: 'roof-bar-1200' });
const head = lookupOf(emptyBuild()).fixture('perimeter-head-2');

const firstModule = (build: Build, patch: object) => ({
  ...build,
  placements: build.placements.map((p) => ({
    ...p,
    modules: p.modules.map((m, i) => (i === 0 ? { ...m, ...patch } : m)),
  })),
});
const withVehicle = (patch: object) => ({ ...emptyBuild(), vehicle: { ...emptyBuild().vehicle, ...patch } });
const withBrief = (patch: object) => ({ ...emptyBuild(), brief: { ...emptyBuild().brief, ...patch } });
const ownPart = ownZone({ id: 'own-1', name: 'Own', centre: [0, 1, 0.7], widthM: 0.3 });

describe('a build file of schema 2 is read, or refused with the place of what is wrong', () => {
  test.each<[string, unknown, RegExp]>([
    ['a status that is none', changed({ status: 'lost' }), /^placements\[0\]\.status: must be new, kept/],
    ['a fixing that is none', changed({ fixing: 'glue' }), /^placements\[0\]\.fixing: must be one of drill/],
    ['a pole in the sky', changed({ poleM: 90 }), /^placements\[0\]\.poleM: must be at most 8/],
    ['markup in a text', changed({ text: '<b>' }), /^placements\[0\]\.text: must be one line without/],
    [
      'an insert that is none',
      firstModule(bar, { insert: 'siren' }),
      /modules\[0\]\.insert: must be warning/,
    ],
    [
      'an insert where there are no slots',
      firstModule(lamp, { insert: 'flood' }),
      /modules\[0\]\.insert: 'perimeter-head-2' is not built slot by slot/,
    ],
    [
      'a colour that the insert is not made in',
      firstModule(setInsert(bar, [{ placementId: 'a', moduleId: 'm1' }], 'flood'), { colours: ['red'] }),
      /modules\[0\]\.colours\[0\]: 'roof-bar-1200' is not available in red/,
    ],
    [
      'an unknown body',
      withVehicle({ bodyType: 'boat' }),
      /^vehicle\.bodyType: must be a body type Flarik knows/,
    ],
    [
      'an option the body does not take',
      withVehicle({ options: ['tail-lift'] }),
      /^vehicle\.options\[0\]: a Mid SUV takes no 'tail-lift'/,
    ],
    [
      'an option twice',
      withVehicle({ options: ['winch', 'winch'] }),
      /^vehicle\.options\[.\]: ('winch' is named twice|a Mid SUV takes no)/,
    ],
    [
      'a dimension of another body',
      withVehicle({ dimensions: { ...emptyBuild().vehicle.dimensions, deckHeightM: 1 } }),
      /^vehicle\.dimensions\.deckHeightM: is not measured on a Mid SUV/,
    ],
    [
      'a dimension too many',
      withVehicle({ dimensions: { ...emptyBuild().vehicle.dimensions, charm: 1 } }),
      /^vehicle\.dimensions\.charm: unknown dimension/,
    ],
    [
      'an own zone with a built-in id',
      addOwn(emptyBuild(), 'zones', [{ ...ownPart, id: 'grille', centre: [0, 1, 0.7] }]),
      /^vehicle\.zones\[\d+\]\.id: 'grille' is used twice/,
    ],
    [
      'an own zone without width',
      withVehicle({ zones: [{ ...ownPart, widthM: 0 }] }),
      /^vehicle\.zones\[0\]\.widthM: must be at least 0\.01/,
    ],
    [
      'glass that lets more through than comes',
      withVehicle({ survey: { ...emptyBuild().vehicle.survey, glass: { windscreen: 1.4 } } }),
      /^vehicle\.survey\.glass\.windscreen: must be at most 1/,
    ],
    ['a currency that is none', withBrief({ currency: 'euro' }), /^brief\.currency: must be a currency/],
    ['a duty that is none', withBrief({ duty: 'lunch' }), /^brief\.duty: must be one of patrol/],
    [
      'a wish of no known kind',
      withBrief({ constraints: [{ kind: 'nice', id: 'w', severity: 'warns' }] }),
      /^brief\.constraints\[0\]\.kind: unknown kind of requirement 'nice'; known are lowest-lamp, no-holes/,
    ],
    [
      'a wish to no side',
      withBrief({
        constraints: [{ kind: 'never-colours', id: 'w', severity: 'warns', colours: ['red'], faces: [] }],
      }),
      /^brief\.constraints\[0\]\.faces: must name at least one face/,
    ],
    [
      'two wishes of one id',
      [1, 2].reduce<Build>(
        (b) => addRequirement(b, { kind: 'lowest-lamp', id: 'w', severity: 'warns', heightM: 0.3 }),
        emptyBuild(),
      ),
      /^brief\.constraints\[1\]\.id: 'w' is used twice/,
    ],
    [
      'two own fixtures of one id',
      { ...emptyBuild(), fixtures: [own('own-1'), own('own-1')] },
      /^fixtures\[1\]\.id: 'own-1' is used twice/,
    ],
    [
      'an own fixture with two modules of one id',
      {
        ...emptyBuild(),
        fixtures: [{ ...own('own-1'), modules: [...head.modules, ...head.modules] }],
      },
      /^fixtures\[0\]\.modules\[1\]\.id: 'm1' is used twice/,
    ],
    [
      'an own fixture of nothing',
      { ...emptyBuild(), fixtures: [{ ...own('own-1'), modules: [] }] },
      /^fixtures\[0\]\.modules: /,
    ],
  ])('%s', (_, data, message) => expect(() => readBuild(data)).toThrow(message));

  test('a lamp of an own fixture reads back; without the fixture it is refused', () => {
    const lit = put(importFixtures(emptyBuild(), [own('own-1')]).build, 'a', {
      fixture: 'own-1',
      zone: 'grille',
    });
    expect(readBuild(lit)).toEqual(lit);
    expect(() => readBuild({ ...lit, fixtures: [] })).toThrow(
      /^placements\[0\]\.fixtureId: no fixture 'own-1' in the catalogue/,
    );
  });

  test('a blank cover needs no colour that is made', () => {
    const blank = setInsert(bar, [{ placementId: 'a', moduleId: 'm1' }], 'blank');
    expect(readBuild(blank)).toEqual(blank);
  });
});

function changed(patch: object): unknown {
  const [p] = changePlacement(lamp, 'a', {}).placements;
  return { ...lamp, placements: [{ ...p, ...patch }] };
}

function own(id: string) {
  return { ...head, id, name: 'Own head' };
}
