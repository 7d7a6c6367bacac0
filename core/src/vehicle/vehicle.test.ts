import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { addGroup } from '../design/timingEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { readBuild } from '../rules/document.ts';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addPlacement } from '../arrange/lamps.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { migrate } from '../design/migrate.ts';
import { SCHEMA_VERSION, type Build } from '../design/schema.ts';
import { openText } from '../state/state.ts';
import {
  addOwn,
  changeBodyType,
  changeDimensions,
  changeOwn,
  changeSurvey,
  lampsWithoutZone,
  removeOwn,
  toggleOption,
  withVehicle,
} from '../arrange/vehicleEdits.ts';
import { litChannels, powerRing, ringOf } from '../coverage/ring.ts';
import { meets, Mesh, MESH_NEAR_M } from '../geometry/mesh.ts';
import { add, dot, scale, sub, unit, type Vec3 } from '../geometry/vec.ts';
import { tieZoneId } from './tieIn.ts';
import { BODY_TYPES } from './bodies/bodyTypes.ts';
import {
  drawnKeepOut,
  drawnSolid,
  drawnZone,
  mirroredBox,
  mirroredZone,
  skinDepthM,
} from './picture/drawn.ts';
import { OPTIONS } from './options/options.ts';
import { defaultSpec, VehicleSpec } from './spec.ts';
import { nextPose, stopsOf, vehicleOf, zoneOf } from './vehicle.ts';
import { readVehicle, writeVehicle } from './vehicleFile.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put, changeStage, ofKind } from '../../test/reference/places.ts';

describe.each(BODY_TYPES)('$id', (body) => {
  const vehicle = vehicleOf(defaultSpec(body.id));

  test('every dimension has a place to measure it, as long as it says', () => {
    const { dimensions } = defaultSpec(body.id);
    for (const key of Object.keys(body.ranges)) {
      const mark = vehicle.marks[key];
      if (mark === undefined) throw new Error(`${key} has no mark`);
      const [dx, dy, dz] = sub(mark.to, mark.from);
      if (key.endsWith('Deg')) continue;
      const along = Math.abs(dx) + Math.abs(dy) + Math.abs(dz);
      expect(along, key).toBeGreaterThan(0);
      if (key === 'lengthM' || key === 'widthM' || key === 'heightM' || key === 'wheelbaseM')
        expect(along, key).toBeCloseTo(dimensions[key] ?? NaN, 6);
    }
  });

  test('each option adds something and takes it off again', () => {
    for (const id of body.options) {
      const option = OPTIONS.find((o) => o.id === id);
      expect(option, id).toBeDefined();
      const fitted = vehicleOf({ ...defaultSpec(body.id), options: [id] });
      expect(fitted.solids.length + fitted.zones.length, id).toBeGreaterThan(
        vehicle.solids.length + vehicle.zones.length,
      );
    }
  });

  test('is seen in five views, with lamps for every law: stop, turn, tail or stop, plate', () => {
    for (const view of ['plan', 'left', 'right', 'front', 'rear'] as const)
      expect(vehicle.art.filter((a) => a.view === view).length, view).toBeGreaterThan(5);
    const does = new Set(vehicle.factoryLamps.map((l) => l.does));
    for (const one of ['stop', 'turn', 'plate', 'reverse'] as const) expect(does.has(one), one).toBe(true);
    expect(vehicle.factoryLamps.find((l) => l.does === 'stop')?.mayTie).toBe(false);
  });
});

describe('parts that move', () => {
  const van = vehicleOf(defaultSpec('panel-van'));
  test('barn doors pin at 90°, 180° and 270°, one stop after the other, and shut again', () => {
    const door = van.parts.find((p) => p.id === 'barn-door-left');
    expect(door?.stops.map((s) => Math.abs(s.motion.angleDeg))).toEqual([90, 180, 270]);
    const poses = [0, 1, 2, 3].reduce<string[][]>(
      (all) => [...all, nextPose(van, all.at(-1) ?? [], 'barn-door-left')],
      [[]],
    );
    expect(poses.map((p) => p.length)).toEqual([0, 1, 1, 1, 0]);
    expect(openText({ vehicle: defaultSpec('panel-van'), placements: [] }, poses[2] ?? [])).toMatch(/180°/);
  });
  test('a sliding door slides', () => {
    const slides = stopsOf(van, 'door').filter((s) => Math.hypot(...s.motion.by) > 0.3);
    expect(slides.length).toBeGreaterThanOrEqual(1);
    expect(slides.every((s) => s.motion.angleDeg === 0)).toBe(true);
  });
  test('a blade raised hides low lamps more than one at work', () => {
    const build = toggleOption(put(emptyBuild('pickup'), 'a', { zone: 'grille' }), 'front-blade');
    const { parts } = lookupOf(build).vehicle;
    expect(parts.find((p) => p.kind === 'blade')?.stops).toHaveLength(1);
  });
});

describe('another vehicle under the lamps', () => {
  const lamps = put(put(emptyBuild(), 'a', { zone: 'grille' }), 'b', { zone: 'hatch-panel-left' });
  test('what has a zone there stays, the rest is counted and taken off', () => {
    expect(lampsWithoutZone(lamps, defaultSpec('sedan'))).toBe(1);
    const sedan = changeBodyType(lamps, 'sedan');
    expect(sedan.placements.map((p) => p.id)).toEqual(['a']);
    expect(readBuild(sedan)).toEqual(sedan);
    expect(changeBodyType(lamps, 'no-such')).toBe(lamps);
  });
  test('an option takes its lamps with it', () => {
    const racked = toggleOption(emptyBuild(), 'bumper-guard');
    const lit = addPlacement(racked, {
      id: 'g',
      fixtureId: 'perimeter-head-2',
      zoneId: 'guard-top',
      uM: 0,
      vM: 0,
    });
    expect(toggleOption(lit, 'bumper-guard').placements).toEqual([]);
  });
  test('a vehicle file reads back; another file is refused', () => {
    const spec = { ...defaultSpec('pumper'), name: 'Tunnel pumper' };
    expect(readVehicle(JSON.parse(JSON.stringify(writeVehicle(spec))))).toEqual(spec);
    expect(() => readVehicle({ format: 'flarik-build' })).toThrow(/this is not a Flarik vehicle/);
    expect(() => readVehicle({ ...writeVehicle({ ...spec, bodyType: 'boat' }) })).toThrow(
      /^vehicle\.bodyType: must be a body type Flarik knows: sedan/,
    );
  });
  test('dimensions that do not go together are refused with the reason', () => {
    const spec = changeDimensions(emptyBuild('panel-van'), { lengthM: 4.8 }).vehicle;
    const read = VehicleSpec.safeParse(spec);
    expect(read.error?.issues[0]?.message).toMatch(
      /^do not go together: the rear wheel comes behind the tail/,
    );
  });
});

describe('the survey', () => {
  test('lies over what the body type says', () => {
    const surveyed = changeSurvey(emptyBuild(), {
      mayTie: { 'head-left': false },
      glass: { windscreen: 0.4 },
    });
    const { vehicle } = lookupOf(surveyed);
    expect(vehicle.factoryLamps.find((l) => l.id === 'head-left')?.mayTie).toBe(false);
    expect(vehicle.solids.find((s) => s.id === 'windscreen')?.transmission).toBe(0.4);
  });
  test('darker glass lets less through: in proportion', () => {
    const inside = put(emptyBuild(), 'a', { zone: 'windscreen', fixture: 'perimeter-head-2' });
    const lit = changeStage(inside, 2, {
      cues: [lightCue(groupTarget(null), 1, 'steady')],
    });
    const ahead = (glass: number) =>
      powerRing(
        litChannels(
          changeSurvey(lit, { glass: { windscreen: glass } }),
          { on: ['stage-2'], open: [], ambient: 'day' },
          { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 },
        ),
      )[0] ?? 0;
    expect(ahead(0.8)).toBeGreaterThan(0);
    expect(ahead(0.4)).toBeCloseTo(ahead(0.8) / 2, 6);
  });
});

describe('parts of one’s own', () => {
  const { vehicle } = lookupOf(emptyBuild());
  const rect = { view: 'left', from: [-0.3, 0.6], to: [0.1, 0.8] } as const;

  test('a zone drawn on the side lies on its skin, faces out, and has the rectangle’s size', () => {
    const zone = drawnZone(vehicle, rect, 'own-1', 'Own');
    expect(zone).toMatchObject({ face: 'left', widthM: 0.4, heightM: 0.2 });
    expect(zone.centre[0]).toBeCloseTo(0.1, 9);
    expect(zone.centre[1]).toBeCloseTo(skinDepthM(vehicle, 'left', [-0.1, 0.7]) + 0.002, 3);
    expect(zone.centre[1]).toBeGreaterThan(vehicle.widthM / 2 - 0.15);
  });
  test('drawn on a door it is carried by it; in the rear window it lies behind the glass, on the hatch', () => {
    expect(drawnZone(vehicle, rect, 'own-1', 'Own').partId).toBe('door-front-left');
    const glass = zoneOf(vehicle, 'rear-glass');
    const [, y, z] = glass.centre;
    const window = { view: 'rear', from: [-y - 0.2, z - 0.05], to: [-y + 0.2, z + 0.05] } as const;
    const zone = drawnZone(vehicle, window, 'own-1', 'Own');
    expect(zone).toMatchObject({ mount: 'glass', partId: 'hatch', face: 'rear' });
    expect(zone.centre[0]).toBeGreaterThan(-skinDepthM(vehicle, 'rear', [-y, z]) + 0.05);
    const board = put(addOwn(emptyBuild(), 'zones', [zone]), 'a', { zone: 'own-1', fixture: 'mini-head-1' });
    expect(ofKind(board, 'inside')).toEqual([]);
    expect(ofKind(board, 'misfit')).toEqual([]);
  });
  test('on the plan its width runs across the vehicle', () => {
    const zone = drawnZone(vehicle, { view: 'plan', from: [-0.2, -0.4], to: [0.1, 0.4] }, 'own-1', 'Own');
    expect(zone).toMatchObject({ face: 'top', mount: 'roof', widthM: 0.8, heightM: 0.3 });
  });
  test('boxes and keep-outs stand out from the skin; twins know each other', () => {
    const solid = drawnSolid(vehicle, rect, 'own-1', 'Own');
    if (solid.kind !== 'box') throw new Error('a drawn solid is a box');
    expect(solid.to[1] - solid.from[1]).toBeCloseTo(0.25, 2);
    const keepOut = drawnKeepOut(vehicle, rect, 'own-2', 'Own');
    expect(keepOut.to[1] - keepOut.from[1]).toBeCloseTo(0.3, 2);
    expect(mirroredBox(keepOut, 'own-3', 'Twin').from[1]).toBeCloseTo(-keepOut.to[1], 9);
    const zone = drawnZone(vehicle, rect, 'own-4', 'Own left');
    const both = addOwn(emptyBuild(), 'zones', [zone, mirroredZone(vehicle, zone, 'own-5', 'Own right')]);
    expect(zoneOf(lookupOf(both).vehicle, 'own-4').mirrorId).toBe('own-5');
    expect(readBuild(both)).toEqual(both);
  });
  test('are changed and taken away by id, a zone with the lamps on it', () => {
    const zone = drawnZone(vehicle, rect, 'own-1', 'Own');
    const built = put(addOwn(emptyBuild(), 'zones', [zone]), 'a', { zone: 'own-1' });
    expect(
      zoneOf(lookupOf(changeOwn(built, 'zones', 'own-1', { widthM: 0.5 })).vehicle, 'own-1').widthM,
    ).toBe(0.5);
    expect(removeOwn(built, 'zones', 'own-1').placements).toEqual([]);
  });
  test('on a moving part stay, on the body, when the vehicle loses it; a file that names none is refused', () => {
    const zone = { ...drawnZone(vehicle, rect, 'own-1', 'Own'), partId: 'hatch' };
    const built = put(addOwn(emptyBuild(), 'zones', [zone]), 'a', { zone: 'own-1' });
    expect(built.vehicle.zones[0]?.partId).toBe('hatch');
    expect(readBuild(built)).toEqual(built);
    const truck = changeBodyType(built, 'flat-bed');
    expect(truck.vehicle.zones[0]?.partId).toBeNull();
    expect(truck.placements).toHaveLength(1);
    expect(readBuild(truck)).toEqual(truck);
    const lost = { ...built.vehicle, zones: [{ ...zone, partId: 'wing' }] };
    expect(() => readVehicle(writeVehicle(lost))).toThrow(
      /^vehicle\.zones\[0\]\.partId: no moving part 'wing' on this vehicle/,
    );
  });
  test.each<[string, object, RegExp]>([
    ['a flat box', { kind: 'box', from: [0, 0, 0], to: [0, 1, 1], transmission: 0 }, /at least 2 mm/],
    [
      'a profile with a dent',
      {
        kind: 'profile',
        points: [
          [0, 0],
          [2, 0],
          [1, 0.2],
          [2, 2],
          [0, 2],
        ],
        fromY: 0,
        toY: 1,
        transmission: 0,
      },
      /must be convex: draw it as several/,
    ],
  ])('%s is refused', (_, solid, message) => {
    const read = VehicleSpec.safeParse({
      ...defaultSpec('sedan'),
      solids: [{ id: 'own-1', name: 'Own', ...solid }],
    });
    expect(read.error?.issues[0]?.message).toMatch(message);
  });
});

describe('a body from a mesh', () => {
  const coordinate = fc.double({ min: -2, max: 2, noNaN: true });
  const point = fc.tuple(coordinate, coordinate, coordinate);

  test('the tree of boxes hides what plain search of all triangles hides, also along the axes', () => {
    fc.assert(
      fc.property(
        fc.array(point, { minLength: 30, maxLength: 90 }),
        point,
        fc.oneof(point, fc.constantFrom<Vec3>([1, 0, 0], [0, -1, 0], [0, 0, 1])),
        (corners, origin, toward) => {
          fc.pre(Math.hypot(...toward) > 0.1);
          const whole = corners.slice(0, corners.length - (corners.length % 3));
          const mesh = new Mesh(
            whole.flat(),
            whole.map((_, i) => i),
          );
          const d = unit(toward);
          const plain = Array.from({ length: whole.length / 3 }, (_, k) => k).some((k) =>
            meets(mesh.triangles, k, origin, d, MESH_NEAR_M),
          );
          expect(mesh.hides(origin, d)).toBe(plain);
        },
      ),
      { numRuns: 400, seed: 41 },
    );
  });

  /** A closed box as twelve triangles. */
  const boxMesh = (from: Vec3, to: Vec3) => {
    const corner = (i: number): Vec3 => [
      i & 1 ? to[0] : from[0],
      i & 2 ? to[1] : from[1],
      i & 4 ? to[2] : from[2],
    ];
    const quads = [
      [0, 1, 3, 2],
      [4, 6, 7, 5],
      [0, 4, 5, 1],
      [2, 3, 7, 6],
      [0, 2, 6, 4],
      [1, 5, 7, 3],
    ];
    return {
      name: 'Box',
      verticesM: Array.from({ length: 8 }, (_, i) => corner(i)).flat(),
      triangles: quads.flatMap(([a = 0, b = 0, c = 0, d = 0]) => [a, b, c, a, c, d]),
    };
  };

  test('a meshed box before a lamp hides what the same solid box hides', () => {
    const lamp = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 });
    const [x, y, z] = zoneOf(lookupOf(lamp).vehicle, 'rear-bumper').centre;
    const from: Vec3 = [x - 0.6, y - 0.5, z - 0.4];
    const to: Vec3 = [x - 0.3, y + 0.1, z + 0.4];
    const meshed = withVehicle(lamp, {
      ...lamp.vehicle,
      mesh: { ...boxMesh(from, to), replacesBody: false },
    });
    const solid = addOwn(lamp, 'solids', [
      {
        kind: 'box',
        id: 'own-1',
        name: 'Box',
        from: [from[0], from[1], from[2]],
        to: [to[0], to[1], to[2]],
        transmission: 0,
      },
    ]);
    const share = (build: typeof lamp) => {
      const lit = changeStage(build, 2, { cues: [lightCue(groupTarget(null), 1, 'steady')] });
      return powerRing(
        litChannels(
          lit,
          { on: ['stage-2'], open: [], ambient: 'day' },
          { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 },
        ),
      );
    };
    const [a, b, free] = [share(meshed), share(solid), share(lamp)];
    expect([...a].some((v, i) => v < (free[i] ?? 0))).toBe(true);
    for (const [i, v] of a.entries()) expect(v, String(i)).toBeCloseTo(b[i] ?? NaN, 6);
  });

  test('corners that are not there, and too many triangles, are refused', () => {
    const spec = (mesh: object) => VehicleSpec.safeParse({ ...defaultSpec('sedan'), mesh });
    const good = { ...boxMesh([0, 0, 0], [1, 1, 1]), replacesBody: true };
    expect(spec(good).success).toBe(true);
    expect(spec({ ...good, triangles: [0, 1, 99] }).error?.issues[0]?.message).toMatch(
      /^a triangle names a missing corner/,
    );
    expect(
      spec({ ...good, triangles: Array.from({ length: 60_003 }, () => 0) }).error?.issues[0]?.message,
    ).toMatch(/at most 20000 triangles/);
  });

  test('lies where it was put', () => {
    const centre: Vec3 = [1, 0, 1];
    const mesh = new Mesh(...meshParts(boxMesh(sub(centre, [0.5, 0.5, 0.5]), add(centre, [0.5, 0.5, 0.5]))));
    expect(mesh.hides([-3, 0, 1], [1, 0, 0])).toBe(true);
    expect(mesh.hides([-3, 0, 1], scale([1, 0, 0], -1))).toBe(false);
    expect(mesh.hides([-3, 0.6, 1], [1, 0, 0])).toBe(false);
  });
  const meshParts = (m: { verticesM: number[]; triangles: number[] }): [number[], number[]] => [
    m.verticesM,
    m.triangles,
  ];
});

const without = (data: object, ...keys: string[]): object =>
  Object.fromEntries(Object.entries(data).filter(([key]) => !keys.includes(key)));

describe('factory lamps tied in', () => {
  const suv = emptyBuild();
  const fog = (b: Build): Build => put(b, 'fog', { zone: 'tie-fog-left', fixture: 'factory-fog' });

  test('a lamp that may be tied in has a zone of its own size, which looks out and knows its mirror image', () => {
    for (const { id } of BODY_TYPES) {
      const vehicle = vehicleOf(emptyBuild(id).vehicle);
      const ties = vehicle.zones.filter((z) => z.mount === 'factory');
      for (const z of ties) {
        const lamp = vehicle.factoryLamps.find((l) => tieZoneId(l.id) === z.id);
        expect(lamp?.mayTie, `${id} ${z.id}`).toBe(true);
        if (z.face !== 'inside' && z.tiesIn !== 'cargo')
          expect(dot(z.n, [z.centre[0], z.centre[1], 0]), `${id} ${z.id}`).toBeGreaterThan(0);
        expect(Math.min(z.widthM, z.heightM), `${id} ${z.id}`).toBeGreaterThan(0.02);
        if (Math.abs(z.centre[1]) > 0.05) expect(z.mirrorId, `${id} ${z.id}`).not.toBe(z.id);
      }
      const signals = ['stop', 'turn', 'mirror turn', 'marker', 'plate'];
      expect(ties.filter((z) => z.tiesIn === null || signals.includes(z.tiesIn))).toEqual([]);
    }
  });

  test('it flashes in a group and is seen like any other lamp, and the survey can forbid it', () => {
    const tied = changeModules(
      addGroup(fog(suv), { id: 'g', name: 'Fog' }),
      [{ placementId: 'fog', moduleId: 'm1' }],
      { groupId: 'g' },
    );
    const cued = setCue(tied, 'stage-2', groupTarget('g'), 1, lightCue(groupTarget('g'), 1, 'single'));
    const { effectiveCd } = ringOf(
      litChannels(
        cued,
        { on: ['stage-2'], open: [], ambient: 'day' },
        { elevationDeg: 0, colour: 'white', level: 'any', upperAboveM: 1.5 },
      ),
    );
    expect(effectiveCd[0]).toBeGreaterThan(500);
    expect(effectiveCd[180]).toBe(0);
    expect(readBuild(JSON.parse(JSON.stringify(cued)))).toEqual(cued);
    const forbidden = changeSurvey(cued, { mayTie: { 'fog-left': false } });
    expect(forbidden.placements).toEqual([]);
  });
});

describe('builds of schema 1', () => {
  test('read as before: named lamps, new, nothing of one’s own', () => {
    const now = demoBuild('ks-13');
    const old = {
      ...without(now, 'brief', 'fixtures', 'photometry'),
      schemaVersion: 1,
      vehicle: { bodyType: 'mid-suv', dimensions: now.vehicle.dimensions },
      placements: now.placements.map((p) => ({
        ...without(p, 'named', 'status', 'fixing', 'poleM', 'text'),
        modules: p.modules.map((m) => without(m, 'insert')),
      })),
    };
    const read = readBuild(old);
    expect(read.schemaVersion).toBe(SCHEMA_VERSION);
    expect(
      read.placements.every((p) => p.named && p.status === 'new' && p.modules[0]?.insert === 'warning'),
    ).toBe(true);
    expect(read.placements.map((p) => p.label)).toEqual(now.placements.map((p) => p.label));
  });
  test('what is wrong in an old build is still named', () => {
    expect(() => readBuild({ format: 'flarik-build', schemaVersion: 1, name: 7 })).toThrow(/name|id/);
    expect(migrate({ placements: 3 }, 1)).toMatchObject({ schemaVersion: SCHEMA_VERSION });
  });
});
