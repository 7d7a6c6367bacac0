import { groupTarget, lightCue } from '../../design/functions.ts';
import { setCue } from '../../design/controlEdits.ts';
import { describe, expect, test } from 'vitest';
import { addPartner, addPlacement, changePlacement, setColour } from '../../arrange/lamps.ts';
import { addOwn, changeSurvey } from '../../arrange/vehicleEdits.ts';
import { litChannels } from '../../coverage/ring.ts';
import { changeModules } from '../../design/moduleEdits.ts';
import type { Build } from '../../design/schema.ts';
import { addGroup, changeGroup } from '../../design/timingEdits.ts';
import { bearingOf } from '../../geometry/direction.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { placeModules } from '../../resolve/place.ts';
import { stateWith } from '../../state/state.ts';
import { BODY_TYPES } from '../../vehicle/bodies/bodyTypes.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import { readBuild } from '../document.ts';
import { demoBuild } from '../../../test/reference/demo.ts';
import { emptyBuild, ofKind, ownZone, put } from '../../../test/reference/places.ts';

describe('factory lamps shine where they are made to, whatever way their lens slopes', () => {
  /** A tied-in lamp that burns steadily in stage 2. */
  function tied(build: Build, lampId: string, fixtureId: string): Build {
    const lamp = addPlacement(build, { id: 'f', fixtureId, zoneId: `tie-${lampId}`, uM: 0, vM: 0 });
    return setCue(lamp, 'stage-2', groupTarget(null), 1, lightCue(groupTarget(null), 1, 'steady'));
  }
  const cdAt = (build: Build, bearing: number): number =>
    litChannels(build, stateWith({ on: ['stage-2'] }), {
      elevationDeg: 0,
      colour: null,
      level: 'any',
      upperAboveM: 1.5,
    }).reduce((sum, { drive, share }) => sum + drive.peakCd * (share[bearing] ?? 0), 0);

  test.each(BODY_TYPES.map((b) => b.id))(
    '%s: a head lamp sends its 14 000 cd straight ahead, unhidden',
    (id) => {
      const body = emptyBuild(id);
      const lampId = vehicleOf(body.vehicle).factoryLamps.some((l) => l.id === 'high-left')
        ? 'high-left'
        : 'head-left';
      const build = tied(body, lampId, 'factory-head');
      expect(cdAt(build, 0)).toBeCloseTo(14_000, 3);
      const [module] = placeModules(lookupOf(build), build.placements[0] ?? neverPlaced(), new Set());
      expect(bearingOf(module?.frame.aim ?? [0, 0, 0])).toEqual({ bearingDeg: 0, elevationDeg: 0 });
      expect(ofKind(build, 'blocked')).toEqual([]);
      expect(ofKind(build, 'near-signal')).toEqual([]);
      expect(ofKind(build, 'misfit')).toEqual([]);
    },
  );

  test.each(BODY_TYPES.map((b) => b.id))('%s has every lamp a vehicle has, left and right alike', (id) => {
    const { factoryLamps } = vehicleOf(emptyBuild(id).vehicle);
    const does = new Set(factoryLamps.map((l) => l.does));
    for (const f of [
      'day',
      'parking',
      'turn',
      'tail',
      'stop',
      'reverse',
      'marker',
      'mirror turn',
      'cargo',
      'plate',
    ] as const)
      expect(does.has(f), f).toBe(true);
    expect(does.has('head') || does.has('low beam')).toBe(true);
    for (const lamp of factoryLamps) {
      const [x, y, z] = lamp.aim;
      expect(Math.hypot(x, y, z)).toBeCloseTo(1, 9);
      if (['tail', 'stop', 'reverse'].includes(lamp.does) && !lamp.id.includes('side'))
        expect(x, lamp.id).toBe(-1);
      if (['head', 'low beam', 'high beam', 'day', 'parking'].includes(lamp.does)) expect(x, lamp.id).toBe(1);
    }
    expect(new Set(factoryLamps.map((l) => l.id)).size).toBe(factoryLamps.length);
  });

  test('a lamp’s kind must match its place', () => {
    const wrong = tied(emptyBuild(), 'reverse-left', 'factory-head');
    expect(ofKind(wrong, 'misfit').map((f) => f.sentence)).toEqual([
      expect.stringMatching(
        /does not fit Left reversing lamp: made for head or low beam or high beam lamps, this is a reverse lamp\./,
      ),
    ]);
    expect(ofKind(tied(emptyBuild(), 'reverse-left', 'factory-reverse'), 'misfit')).toEqual([]);
  });

  test('one that is taken out leaves its opening as a zone; what tied it in goes with it', () => {
    const build = tied(emptyBuild(), 'reverse-left', 'factory-reverse');
    const without = changeSurvey(build, { removedLamps: ['reverse-left'] });
    const { factoryLamps, zones } = lookupOf(without).vehicle;
    expect(factoryLamps.some((l) => l.id === 'reverse-left')).toBe(false);
    expect(without.placements).toEqual([]);
    const opening = zones.find((z) => z.id === 'opening-reverse-left');
    expect(opening).toMatchObject({ mount: 'panel', face: 'rear' });
    const filled = put(without, 'x', { zone: 'opening-reverse-left', fixture: 'housing-insert' });
    expect(readBuild(filled)).toEqual(filled);
    expect(ofKind(filled, 'misfit')).toEqual([]);
  });
});

const neverPlaced = (): never => {
  throw new Error('the lamp was placed');
};

describe('a bar is judged module by module', () => {
  test('the rear half of the patrol car’s bar behind its raised hatch is told, though most of the bar is free', () => {
    const [covered] = ofKind(demoBuild('ks-13'), 'covered');
    expect(covered?.sentence).toMatch(
      /^Roof: 6 modules of 16 blocked with hatch open, at most 56 % of the beam \(limit 40 %\)\./,
    );
    expect(covered?.evidence.channels.map((c) => c.moduleId).toSorted()).toEqual([
      'm10',
      'm11',
      'm12',
      'm7',
      'm8',
      'm9',
    ]);
    expect(covered?.evidence.state?.open).toEqual(['hatch']);
  });
});

describe('whether a lamp fits', () => {
  const wide = (rollDeg: number): Build =>
    put(emptyBuild(), 'a', { zone: 'hatch-panel-left', fixture: 'long-head-3', rollDeg });
  test('is asked as it is turned: along the panel it does, across it does not', () => {
    expect(ofKind(wide(0), 'misfit')).toEqual([]);
    expect(ofKind(wide(90), 'misfit').map((f) => f.sentence)).toEqual([
      expect.stringMatching(/does not fit Hatch panel left: \d+ mm high, the zone has 120 mm\./),
    ]);
    expect(ofKind(wide(180), 'misfit')).toEqual([]);
  });
  test('is asked of files too, which no screen has seen', () => {
    const build = wide(0);
    const onRoof = readBuild({
      ...build,
      placements: build.placements.map((p) => ({ ...p, zoneId: 'roof' })),
    });
    expect(ofKind(onRoof, 'misfit')[0]?.sentence).toMatch(/made for .*, this is roof/);
  });
  test('a lens inside the body is told, and how deep; a stand-off brings it out', () => {
    const [x, y, z] = [0.2, 0.3, 1];
    const inside = (poleM: number): Build =>
      put(
        addOwn(
          addOwn(emptyBuild(), 'solids', [
            {
              kind: 'box',
              id: 'crate',
              name: 'Crate',
              from: [x - 0.2, y - 0.2, z - 0.2],
              to: [x + 0.2, y + 0.2, z + 0.2],
              transmission: 0,
            },
          ]),
          'zones',
          [ownZone({ id: 'in', face: 'left', centre: [x, y, z] })],
        ),
        'a',
        { zone: 'in', fixture: 'mini-head-1', poleM },
      );
    expect(ofKind(inside(0), 'inside')[0]?.sentence).toMatch(/^Own zone L: lens is 180 mm inside the body\./);
    expect(ofKind(inside(0.25), 'inside')).toEqual([]);
  });
  test('depth behind it and room before it, where somebody measured', () => {
    const on = (behindM: number | null, outM: number | null): Build =>
      put(addOwn(emptyBuild(), 'zones', [ownZone({ id: 'z', centre: [0, 1.3, 0.7], behindM, outM })]), 'a', {
        zone: 'z',
        fixture: 'housing-insert',
      });
    expect(ofKind(on(null, null), 'room')).toEqual([]);
    expect(ofKind(on(0.06, 0.02), 'room')).toEqual([]);
    expect(ofKind(on(0.059, null), 'room')[0]?.sentence).toMatch(
      /^Own zone L: needs 60 mm behind Own zone \(available 59 mm\)\./,
    );
    expect(ofKind(on(null, 0.01), 'room')[0]?.sentence).toMatch(
      /^Own zone L: projects 12 mm from Own zone \(limit 10 mm\)\./,
    );
  });
});

describe('voltage', () => {
  test('a lamp made for 12 V in a group fed 24 V is a fault that blocks, and no drift', () => {
    const old = put(emptyBuild(), 'a', { zone: 'roof', fixture: 'legacy-rotator' });
    const grouped = changeModules(
      addGroup(old, { id: 'g', name: 'Old' }),
      [{ placementId: 'a', moduleId: 'm1' }],
      {
        groupId: 'g',
      },
    );
    expect(ofKind(grouped, 'voltage')).toEqual([]);
    const fed = changeGroup(grouped, 'g', { clock: { lines: ['pulse wire'], volts: 24 } });
    const [fault] = ofKind(fed, 'voltage');
    expect(fault).toMatchObject({ severity: 'blocks', evidence: { state: null } });
    expect(fault?.sentence).toMatch(/^Roof is made for 12 V, but fed 24 V in sync group Old\./);
  });
});

describe('left and right alike', () => {
  const ref = (id: string) => [{ placementId: id, moduleId: 'm1' }];
  type Three = readonly ['red' | 'blue', 'red' | 'blue', 'red' | 'blue'];
  /** Three pairs of heads: on the right what is said, on the left red where nothing is said. */
  function pairs(right: Three, onLeft: Three = ['red', 'red', 'red']): Build {
    return right.reduce((b, colour, i) => {
      const left = setColour(
        put(b, `l${i}`, { zone: 'front-bumper', uM: 0.16 + 0.17 * i }),
        ref(`l${i}`),
        1,
        onLeft[i] ?? 'red',
      );
      const both = addPartner(left, `l${i}`, `r${i}`);
      return setColour(both, ref(`r${i}`), 1, colour);
    }, emptyBuild());
  }
  test.each<[string, Three, Three, number]>([
    ['the odd one on the left, as on the right', ['red', 'red', 'red'], ['red', 'blue', 'red'], 1],
    ['the odd one on the left of split pairs', ['blue', 'blue', 'blue'], ['red', 'blue', 'red'], 1],
    ['split pairs that change sides along the row', ['blue', 'red', 'blue'], ['red', 'blue', 'red'], 0],
  ])('%s', (_, right, left, count) => expect(ofKind(pairs(right, left), 'asymmetry')).toHaveLength(count));
  test.each<[string, Three, number]>([
    ['one colour on both sides', ['red', 'red', 'red'], 0],
    ['a colour a side is a school of its own', ['blue', 'blue', 'blue'], 0],
    ['one pair that is not as the others', ['blue', 'red', 'blue'], 1],
    ['the other way round', ['red', 'blue', 'red'], 1],
  ])('%s', (_, right, count) => {
    const found = ofKind(pairs(right), 'asymmetry');
    expect(found).toHaveLength(count);
    for (const f of found) expect(f.sentence).toMatch(/colours do not match the other pairs/);
  });
  test('a lamp with none at its mirror image is told as before', () => {
    const alone = changePlacement(put(emptyBuild(), 'a', { zone: 'front-bumper', uM: 0.3 }), 'a', {});
    expect(ofKind(alone, 'asymmetry')[0]?.sentence).toMatch(
      /^Front bumper L has no counterpart on the other side\./,
    );
  });
});
