import { effectsOf } from '../design/controls.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { addGroup, removeGroup } from '../design/timingEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { MAX_BUILD_BYTES } from '../words/json.ts';
import { readBuild, readBuildText } from '../rules/document.ts';
import { describe, expect, test } from 'vitest';
import { newBuild } from '../design/create.ts';
import {
  addPartner,
  addPlacement,
  changePlacement,
  mirrorBuild,
  removePlacements,
  setColour,
} from './lamps.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { footprint, misfit, placeModules } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';
import { InputError } from '../words/errors.ts';
import { CATALOGUE } from '../fixture/catalogue/catalogue.ts';
import { FIXTURE_KINDS } from '../fixture/types.ts';
import { bearingOf } from '../geometry/direction.ts';
import { mirrorY, type Vec3 } from '../geometry/vec.ts';
import type { Placement } from '../design/placement.ts';
import { BODY_TYPES } from '../vehicle/bodies/bodyTypes.ts';
import { defaultSpec, VehicleSpec } from '../vehicle/spec.ts';
import { vehicleOf, zoneOf } from '../vehicle/vehicle.ts';
import { astray, demoBuild, DEMO_BUILDS } from '../../test/reference/demo.ts';

const ID = '11111111-1111-4111-8111-111111111111';
const empty = newBuild(ID, 'Test', 'police', []);
const put = (zoneId: string, fixtureId = 'perimeter-head-2', uM = 0.2): Build =>
  addPlacement(empty, { id: 'a', fixtureId, zoneId, uM, vM: 0 });

describe('the vehicle', () => {
  const vehicle = vehicleOf(empty.vehicle);

  test('has zones on all faces, upper and lower, behind glass, under the hatch and in the door edges', () => {
    expect(vehicle.zones.length).toBeGreaterThanOrEqual(25);
    expect(new Set(vehicle.zones.map((z) => z.face))).toEqual(
      new Set(['front', 'right', 'rear', 'left', 'corner', 'top', 'inside']),
    );
    expect(vehicle.zones.some((z) => z.mount === 'glass')).toBe(true);
    expect(vehicle.zones.filter((z) => z.partId === 'hatch').length).toBeGreaterThan(3);
  });

  test('ids are unique; each zone’s mirror image is its mirror zone', () => {
    for (const body of BODY_TYPES) {
      const made = vehicleOf({ ...defaultSpec(body.id), options: [...body.options] });
      for (const list of [made.zones, made.solids, made.parts, made.factoryLamps, made.keepOuts]) {
        const ids = list.map((item) => item.id);
        expect(
          ids.filter((id, i) => ids.indexOf(id) !== i),
          body.id,
        ).toEqual([]);
      }
      const partIds = new Set(made.parts.map((p) => p.id));
      for (const { partId } of [...made.zones, ...made.solids, ...made.factoryLamps, ...made.art])
        expect(partId === null || partIds.has(partId), `${body.id} ${String(partId)}`).toBe(true);
      for (const zone of made.zones) {
        const twin = zoneOf(made, zone.mirrorId);
        expect(twin.mirrorId).toBe(zone.id);
        mirrorY(zone.centre).forEach((v, i) => expect(twin.centre[i], zone.id).toBeCloseTo(v, 12));
        mirrorY(zone.n).forEach((v, i) => expect(twin.n[i]).toBeCloseTo(v, 12));
      }
    }
  });

  test('can be made at both ends of every dimension, or says why not', () => {
    let refused = 0;
    for (const body of BODY_TYPES) {
      const usual = defaultSpec(body.id, body.options);
      expect(VehicleSpec.parse(usual)).toEqual(usual);
      for (const [key, [min, max]] of Object.entries(body.ranges)) {
        for (const value of [min, max]) {
          const spec = { ...usual, dimensions: { ...usual.dimensions, [key]: value } };
          const where = `${body.id} ${key} ${value}`;
          const read = VehicleSpec.safeParse(spec);
          if (!read.success) {
            refused += 1;
            expect(read.error.issues[0]?.message, where).toMatch(/^do not go together: \S/);
            continue;
          }
          const made = vehicleOf(spec);
          expect(
            made.solids.every((s) => s.planes.every((p) => Number.isFinite(p.d))),
            where,
          ).toBe(true);
          for (const z of made.zones)
            expect(Math.min(z.widthM, z.heightM), `${where}: ${z.id}`).toBeGreaterThan(0.03);
          expect(made.art.every((a) => !a.path.includes('NaN'))).toBe(true);
        }
      }
    }
    expect(refused).toBeLessThan(12);
  });

  test('the catalogue holds every kind of the trade it names, with honest figures', () => {
    expect(CATALOGUE.length).toBeGreaterThanOrEqual(45);
    expect(new Set(CATALOGUE.map((f) => f.id)).size).toBe(CATALOGUE.length);
    expect(new Set(CATALOGUE.map((f) => f.kind))).toEqual(new Set(FIXTURE_KINDS));
    for (const f of CATALOGUE) {
      expect(new Set(f.modules.map((m) => m.id)).size, f.id).toBe(f.modules.length);
      for (const output of Object.values(f.outputs))
        expect(output.peakCd > 0 && output.currentA > 0, f.id).toBe(true);
      // The lens lies within the housing, seen from in front.
      for (const m of f.modules)
        expect(Math.abs(m.at[1]) + 1e-9, f.id).toBeLessThanOrEqual(f.sizeM.width / 2);
    }
  });

  test('every fixture fits somewhere, and says why it does not fit elsewhere', () => {
    const everyZone = BODY_TYPES.flatMap((body) => {
      const usual = defaultSpec(body.id);
      const mayTie = Object.fromEntries(vehicleOf(usual).factoryLamps.map((l) => [l.id, true]));
      return vehicleOf({ ...usual, options: [...body.options], survey: { ...usual.survey, mayTie } }).zones;
    });
    for (const fixture of CATALOGUE)
      expect(
        everyZone.some((z) => misfit(fixture, z) === null),
        fixture.id,
      ).toBe(true);
    expect(misfit(lookupOf(empty).fixture('roof-bar-1200'), zoneOf(vehicle, 'grille'))).toMatch(
      /made for roof/,
    );
    expect(misfit(lookupOf(empty).fixture('spoiler-bar'), zoneOf(vehicle, 'sill-left'))).toBeNull();
    expect(misfit(lookupOf(empty).fixture('spoiler-bar'), zoneOf(vehicle, 'wing-left'))).toBe(
      '860 mm wide, the zone has 700 mm',
    );
  });
});

describe('edits', () => {
  test('a placement stays on its zone', () => {
    const [p] = put('grille', 'perimeter-head-2', 9).placements;
    const zone = zoneOf(vehicleOf(empty.vehicle), 'grille');
    expect(p?.uM).toBeCloseTo(
      zone.widthM / 2 - footprint(lookupOf(empty).fixture('perimeter-head-2')).halfU,
      4,
    );
  });

  test('a mirrored pair: the partner is the mirror image, and follows', () => {
    const pair = addPartner(put('wing-left'), 'a', 'b');
    const moved = changePlacement(pair, 'a', { uM: -0.1, panDeg: 15, tiltDeg: 4, rollDeg: 3 });
    const [a, b] = moved.placements;
    if (a === undefined || b === undefined) throw new Error('a pair has two');
    expect(b).toMatchObject({ zoneId: 'wing-right', uM: 0.1, panDeg: -15, tiltDeg: 4, partnerId: 'a' });
    const lookup = lookupOf(moved);
    const [left] = placeModules(lookup, a, new Set());
    const [right] = placeModules(lookup, b, new Set());
    mirrorY(left?.centre ?? [0, 0, 0]).forEach((v, i) => expect(right?.centre[i]).toBeCloseTo(v, 9));
    mirrorY(left?.frame.aim ?? [0, 0, 0]).forEach((v, i) => expect(right?.frame.aim[i]).toBeCloseTo(v, 9));
    expect(bearingOf(left?.frame.aim ?? [1, 0, 0]).bearingDeg).toBeCloseTo(285, 6);
  });

  test('names follow the zone and the side, without doubles', () => {
    const b = addPartner(put('rear-bumper', 'perimeter-head-2', -0.3), 'a', 'b');
    expect(b.placements.map((p) => p.label)).toEqual(['Rear bumper L', 'Rear bumper R']);
    const more = addPlacement(b, {
      id: 'c',
      fixtureId: 'perimeter-head-1',
      zoneId: 'rear-bumper',
      uM: -0.1,
      vM: 0,
    });
    const left = more.placements.filter((p) => p.label.startsWith('Rear bumper L')).map((p) => p.label);
    expect(left).toHaveLength(2);
    expect(new Set(left)).toEqual(new Set(['Rear bumper L1', 'Rear bumper L2']));
  });

  test('removing one of a pair leaves the other alone; the build before is untouched', () => {
    const pair = addPartner(put('wing-left'), 'a', 'b');
    const one = removePlacements(pair, new Set(['b']));
    expect(one.placements.map((p) => p.partnerId)).toEqual([null]);
    expect(pair.placements).toHaveLength(2);
    expect(readBuild(one)).toEqual(one);
  });

  test('colours go into slots the fixture has, in colours it is made in', () => {
    const b = put('grille');
    const refs = [{ placementId: 'a', moduleId: 'm1' }];
    const coloursOf = (build: Build) => build.placements[0]?.modules[0]?.colours;
    const two = setColour(b, refs, 2, 'white');
    expect(coloursOf(two)).toEqual(['red', 'white']);
    expect(coloursOf(setColour(two, refs, 3, 'blue'))).toEqual(['red', 'white']);
    expect(coloursOf(setColour(two, refs, 2, null))).toEqual(['red']);
    expect(coloursOf(setColour(two, refs, 1, null))).toEqual(['red', 'white']);
    const flood = put('roof-side-left', 'scene-flood');
    expect(coloursOf(setColour(flood, refs, 1, 'red'))).toEqual(['white']);
  });

  test('a group taken away frees its modules and its cues', () => {
    const refs = [{ placementId: 'a', moduleId: 'm1' }];
    const grouped = changeModules(addGroup(put('grille'), { id: 'g', name: 'G' }), refs, { groupId: 'g' });
    const cued = setCue(grouped, 'stage-2', groupTarget('g'), 1, lightCue(groupTarget('g'), 1, 'single'));
    const freed = removeGroup(cued, 'g');
    expect(freed.placements[0]?.modules[0]?.groupId).toBeNull();
    expect(effectsOf(freed, 'stage-2').cues).toEqual([]);
    expect(readBuild(freed)).toEqual(freed);
  });

  test('mirrored twice is as before', () => {
    const b = demoBuild('ks-12');
    expect(mirrorBuild(mirrorBuild(b))).toEqual(b);
  });

  test.each(DEMO_BUILDS)('mirrored, each module shines as the one in its place did: %s', (name) => {
    const build = astray(demoBuild(name));
    const lookup = lookupOf(build);
    const shining = (p: Placement, seen: (v: Vec3) => Vec3): string[] =>
      placeModules(lookup, p, new Set())
        .map(({ module, centre, frame }) => {
          const { id: _, ...setup } = p.modules.find(({ id }) => id === module.id) ?? { id: '' };
          const lens = [centre, frame.aim, frame.up].flatMap((v) =>
            seen(v).map((x) => (x + 1e-9).toFixed(4)),
          );
          return `${lens.join(' ')} ${JSON.stringify([module.distribution, setup])}`;
        })
        .toSorted();
    const mirrored = mirrorBuild(build).placements;
    for (const [i, p] of build.placements.entries()) {
      const q = mirrored[i];
      expect(q && shining(q, (v) => v), p.label).toEqual(shining(p, mirrorY));
    }
  });
});

describe('reading a build', () => {
  const good = (): Record<string, unknown> => structuredClone({ ...put('grille') });
  const withFirst = (patch: object) => {
    const b = put('grille');
    return { ...b, placements: b.placements.map((p) => ({ ...p, ...patch })) };
  };

  test('what was written reads back equal', () => {
    for (const name of ['ks-12', 'ks-13'] as const) {
      const b = demoBuild(name);
      expect(readBuildText(JSON.stringify(b))).toEqual(b);
    }
  });

  test.each<[string, unknown, RegExp]>([
    ['not an object', [], /^format: this is not a Flarik build/],
    ['another format', { format: 'else' }, /^format: this is not a Flarik build/],
    [
      'a newer schema',
      { ...good(), schemaVersion: 99 },
      /^schemaVersion: the build was written by a newer Flarik \(schema 99\)/,
    ],
    ['NaN', withFirst({ uM: NaN }), /^placements\[0\]\.uM: must be a number/],
    [
      'a negative size',
      {
        ...good(),
        vehicle: { ...empty.vehicle, dimensions: { ...empty.vehicle.dimensions, lengthM: -4 } },
      },
      /^vehicle\.dimensions\.lengthM: must be at least 4\.3/,
    ],
    [
      'an unknown fixture',
      withFirst({ fixtureId: 'nope' }),
      /^placements\[0\]\.fixtureId: no fixture 'nope' in the catalogue/,
    ],
    ['an unknown zone', withFirst({ zoneId: 'moon' }), /^placements\[0\]\.zoneId: no mount zone 'moon'/],
    ['a partner that does not know it', withFirst({ partnerId: 'zz' }), /^placements\[0\]\.partnerId: 'zz'/],
    ['markup in a name', { ...good(), name: '<b>x</b>' }, /^name: must be one line without < or >/],
    ['markup in a label', withFirst({ label: '<img src=x>' }), /^placements\[0\]\.label: must be one line/],
    ['an unknown key', { ...good(), extra: 1 }, /extra/],
  ])('%s is refused with its place', (_, data, message) => {
    expect(() => readBuild(data)).toThrow(InputError);
    expect(() => readBuild(data)).toThrow(message);
  });

  test('an unknown group, pattern or doubled id is refused', () => {
    const b = put('grille');
    const cue = lightCue(groupTarget('ghost'), 1, 'zigzag');
    expect(() => readBuild(setCue(b, 'stage-1', cue.target, 1, cue))).toThrow(
      /controls\.functions\[2\]\.shows\[0\]\.cues\[0\]\.target: no sync group 'ghost' \(and 1 more\)/,
    );
    expect(() => readBuild({ ...b, placements: [...b.placements, ...b.placements] })).toThrow(
      /placements\[1\]\.id: 'a' is used twice/,
    );
  });

  test('text that is broken or too large is refused in one sentence', () => {
    expect(() => readBuildText('{"format":')).toThrow(/the build file is not valid JSON/);
    expect(() => readBuildText(' '.repeat(MAX_BUILD_BYTES + 1))).toThrow(
      /the build file is too large: 4\.0 MB, at most 4 MB/,
    );
  });
});
