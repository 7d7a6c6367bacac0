import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { plainSeenM, plainThrownBack } from '../../test/reference/plainSight.ts';
import { directionMap } from '../coverage/map.ts';
import { layOut, occluderAt } from '../coverage/occlusion.ts';
import { litChannels, powerRing } from '../coverage/ring.ts';
import type { Approach } from '../design/approach.ts';
import { directionOf } from '../geometry/direction.ts';
import { dot, unit, type Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { stateWith } from '../state/state.ts';
import { COLOURS } from '../words/colour.ts';
import { WEATHERS } from '../words/weather.ts';
import { Approaches, FROM_M } from './approach.ts';
import { eyeLightByFunction, eyesInLane, glareAt } from './glare.ts';
import { areaLight, groundGrid, planeLx, type GroundGrid } from './ground.ts';
import { hiddenToward } from './hiders.ts';
import { SEEN_AS, seenBy } from './observer.ts';
import { runToCompletion } from '../words/inSteps.ts';
import { lightsIn, sourcesOf } from './source.ts';
import { driverOf, outlineOf, solidsIn, stationsOf } from './stations.ts';
import { overCrestM, stoppingM } from './stopping.ts';
import { DUTIES, type Duty } from '../design/brief.ts';
import { usualApproaches } from './usualApproaches.ts';
import { meanLevel } from '../timing/timeline.ts';
import { scattering, fogBackscatter, veilOf } from './veil.ts';
import { wayOut } from './view.ts';

const car = demoBuild('ks-13');
const pumper = demoBuild('tunnel-pumper-3');
const stage2 = stateWith({ on: ['stage-2'] });
const approach = (patch: Partial<Approach>): Approach => ({
  id: 'a',
  name: 'A',
  bearingDeg: 180,
  speedKmh: 90,
  eyeM: 1.08,
  gradePercent: 0,
  crest: null,
  weather: 'fog',
  around: 'day',
  colour: null,
  level: 'any',
  noticing: 1,
  ...patch,
});
const turned = (v: Vec3, by: number): Vec3 => [
  v[0] * Math.cos(by) - v[1] * Math.sin(by),
  v[0] * Math.sin(by) + v[1] * Math.cos(by),
  v[2],
];

describe('seen in time', () => {
  const seen = (patch: Partial<Approach>, build = car, without?: ReadonlySet<string>) =>
    new Approaches(build, stage2).result(approach(patch), without);

  test.each<[string, Partial<Approach>]>([
    ['behind in fog by day', {}],
    ['ahead in fog at night', { bearingDeg: 0, around: 'night' }],
    ['from the left, a truck in fog at dusk', { bearingDeg: 270, eyeM: 2.5, around: 'dusk' }],
    ['upper lamps alone, noticed while driving', { level: 'upper', noticing: 20 }],
    ['red alone over a crest', { colour: 'red', crest: { lengthM: 100, changePercent: 8 } }],
  ])('%s: as a plain walk finds it, for every observer', (_, patch) => {
    const { sightings } = seen(patch);
    for (const { observer, seenM } of sightings)
      expect(Math.abs(seenM - plainSeenM(car, stage2, approach(patch), observer))).toBeLessThan(0.2);
  });
  test('a margin is the way that is left over the speed; wet roads need more', () => {
    const dry = seen({});
    expect(dry.neededM).toBeCloseTo(stoppingM(90, 0, false), 9);
    expect(dry.sightings[0].marginS).toBeCloseTo((dry.sightings[0].seenM - dry.neededM) / 25, 9);
    expect(seen({ weather: 'rain' }).neededM).toBeGreaterThan(dry.neededM);
  });
  test('what is seen from the beginning on is said to be at least that', () => {
    const [normal] = seen({ weather: 'clear', around: 'night' }).sightings;
    expect([normal.seenM, normal.beyond]).toEqual([FROM_M, true]);
  });
  test('nothing on is not seen; nor is a colour that nobody shows', () => {
    const off = new Approaches(car, stateWith({})).result(approach({}));
    expect(off.sightings.map(({ seenM }) => seenM)).toEqual([0, 0, 0]);
    expect(seen({ colour: 'green' }).sightings[0].seenM).toBe(0);
  });
  test('never farther in worse air, against more light, or when it must be noticed', () => {
    fc.assert(
      fc.property(fc.constantFrom(0, 90, 180, 270), fc.constantFrom(1.08, 2.5), (bearingDeg, eyeM) => {
        const by = (patch: Partial<Approach>) => seen({ bearingDeg, eyeM, ...patch }).sightings[0].seenM;
        const weathers = WEATHERS.map((weather) => by({ weather }));
        expect(weathers).toEqual(weathers.toSorted((a, b) => b - a));
        expect(by({ around: 'day' })).toBeLessThanOrEqual(by({ around: 'dusk' }));
        expect(by({ noticing: 20 })).toBeLessThan(by({}));
      }),
      { numRuns: 4, seed: 8 },
    );
  });
  test('an eye that sees red poorly sees red from less far, and one that sees green poorly from farther', () => {
    const [normal, protan, deutan] = seen({ colour: 'red' }).sightings;
    expect(protan?.seenM).toBeLessThan(normal.seenM);
    expect(deutan?.seenM).toBeGreaterThan(normal.seenM);
  });
  test('what a lamp adds is what is lost without it', () => {
    const table = new Approaches(car, stage2);
    const gains = runToCompletion(table.gains(approach({})));
    expect(gains.length).toBeGreaterThan(0);
    for (const { placementId, gainM } of gains) {
      const without = { ...car, placements: car.placements.filter(({ id }) => id !== placementId) };
      const less = new Approaches(without, stage2).result(approach({})).sightings[0].seenM;
      expect(table.result(approach({})).sightings[0].seenM - less).toBeCloseTo(gainM, 6);
    }
  });
  test('the usual ones: five ways in twelve airs, each by its own name', () => {
    expect(usualApproaches('other')).toHaveLength(60);
    expect(new Set(usualApproaches('other').map(({ id }) => id)).size).toBe(60);
  });
  test('a duty says which roads: no junctions at the roadside, no fast road on a slip', () => {
    const fastest = (duty: Duty) => Math.max(...usualApproaches(duty).map(({ speedKmh }) => speedKmh));
    const sides = (duty: Duty) =>
      usualApproaches(duty).filter(({ bearingDeg }) => bearingDeg === 90 || bearingDeg === 270).length;
    expect([fastest('patrol'), fastest('roadside work'), fastest('marshalling')]).toEqual([110, 110, 30]);
    expect([sides('patrol'), sides('roadside work'), sides('marshalling')]).toEqual([24, 0, 24]);
    for (const duty of DUTIES)
      expect(
        usualApproaches(duty).some(({ id }) => id === 'behind-fog-night'),
        duty,
      ).toBe(true);
  });
  test('the light along the way crosses what is needed where it is seen from', () => {
    const table = new Approaches(car, stage2);
    const { thresholdLx, points } = table.curve(approach({}), 2000);
    const cross = points.find(({ lx }) => lx < thresholdLx)?.distanceM ?? 0;
    expect(Math.abs(cross / table.result(approach({})).sightings[0].seenM - 1)).toBeLessThan(0.01);
  });
});

test('a lamp that is moved or turned is seen where it is now, not where it was', () => {
  const from = approach({ bearingDeg: 0 });
  const before = new Approaches(car, stage2).result(from).sightings[0].seenM;
  const eye = { eye: [50, 3.5, 1.2], view: [-1, 0, 0] } as const;
  const dazzled = glareAt(lightsIn(car, stage2), eye).mean;
  const away = {
    ...car,
    placements: car.placements.map((p) => (p.zoneId === 'roof' ? { ...p, panDeg: p.panDeg + 90 } : p)),
  };
  const now = new Approaches(away, stage2).result(from).sightings[0].seenM;
  expect(Math.abs(now - plainSeenM(away, stage2, from, 'normal'))).toBeLessThan(0.2);
  expect(now).not.toBe(before);
  expect(glareAt(lightsIn(away, stage2), eye).mean).not.toBe(dazzled);
});

describe('stopping and crests', () => {
  test('a road too steep for the brake has no stopping distance', () =>
    expect(stoppingM(50, -40, false)).toBe(Infinity));
  test('no crest, no limit; higher lamps and longer curves reach farther', () => {
    expect(overCrestM(300, 0, 1.08, 0.6)).toBe(Infinity);
    expect(overCrestM(100, 6, 1.08, 2.5)).toBeGreaterThan(overCrestM(100, 6, 1.08, 0.6));
    // Where the two formulas meet they agree.
    const length = 100;
    const within = (Math.sqrt(2 * 1.08) + Math.sqrt(1.2)) ** 2;
    const change = (100 * within) / length;
    expect(overCrestM(length, change, 1.08, 0.6)).toBeCloseTo(length, 6);
    expect(overCrestM(length, change * 0.999, 1.08, 0.6)).toBeCloseTo(length, 0);
  });
});

test('the normal eye sees every colour as it is; purple lies between red and blue', () => {
  for (const colour of COLOURS) expect(seenBy('normal', colour)).toBe(1);
  expect(seenBy('protan', 'purple')).toBeGreaterThan(seenBy('protan', 'red'));
  expect(seenBy('protan', 'purple')).toBeLessThan(seenBy('protan', 'blue'));
});

test('a picture seen without one kind of cone keeps its greys; red is darker without the long-wave cones', () => {
  for (const rows of Object.values(SEEN_AS))
    for (const row of rows) expect(row.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 5);
  const brightness = ([r, g, b]: readonly number[]) =>
    0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0);
  const red = (rows: readonly (readonly number[])[]) => brightness(rows.map(([r]) => r ?? 0));
  expect(red(SEEN_AS.protan)).toBeLessThan(0.2126 * 0.6);
  expect(red(SEEN_AS.deutan)).toBeGreaterThan(0.2126);
});

describe('fog', () => {
  test('scatters all the light it takes: one over the sphere', () => {
    let sum = 0;
    const N = 20_000;
    for (let i = 0; i < N; i++) sum += (scattering(-1 + (2 * i + 1) / N) * 2 * 2 * Math.PI) / N;
    expect(sum).toBeCloseTo(1, 4);
  });
  test('a beam throws back what a fine sum finds', () => {
    fc.assert(
      fc.property(
        fc.record({
          x: fc.double({ min: -2, max: 3, noNaN: true }),
          y: fc.double({ min: 0.3, max: 1.5, noNaN: true }),
          z: fc.double({ min: 0.4, max: 2.4, noNaN: true }),
          aside: fc.integer({ min: -10, max: 10 }),
        }),
        ({ x, y, z, aside }) => {
          const aim = unit([1, 0.1, -0.05]);
          const lamp = {
            centre: [x, y, z] as const,
            cdToward: (d: Vec3) => 1000 * Math.max(0, dot(d, aim)) ** 8,
            cdOn: () => (_: number, d: Vec3) => 1000 * Math.max(0, dot(d, aim)) ** 8,
          };
          const view = directionOf(aside, 0);
          const found = fogBackscatter(lamp, [0, 0, 1.3], view, 80);
          expect(found / plainThrownBack(lamp, [0, 0, 1.3], view, 80)).toBeCloseTo(1, 2);
        },
      ),
      { numRuns: 20, seed: 5 },
    );
  });
  test.each(['ferry-slip', 'ks-12', 'line-marking'] as const)(
    'of %s: the mean over a fine view to half a percent',
    (name) => {
      const build = demoBuild(name);
      const driver = driverOf(lookupOf(build).vehicle, build.traffic);
      const stage = build.controls.functions.find(({ kind, mode }) => kind === 'stage' && mode === 2);
      if (driver === null || stage === undefined) throw new Error('no driver, or no stage');
      const lights = lightsIn(build, stateWith({ on: [stage.id], ambient: 'night' }));
      const solids = solidsIn(lookupOf(build).vehicle, []);
      const cells = (most: number) =>
        Array.from({ length: (2 * most) / 0.625 }, (_, i) => (i + 0.5) * 0.625 - most);
      const views = cells(5).flatMap((up) => cells(10).map((aside) => directionOf(aside, up)));
      const ways = views.map((view) => ({ view, ...wayOut(solids, driver.eye, view) }));
      const mean = lights.reduce((sum, { centre, shareOn, drives }) => {
        const cd = drives.reduce((all, drive) => all + drive.peakCd * meanLevel(drive), 0);
        const thrown = ways.reduce(
          (all, { view, endM, share }) =>
            all + share * fogBackscatter({ centre, cdOn: shareOn }, driver.eye, view, 80, endM),
          0,
        );
        return sum + (cd * thrown) / views.length;
      }, 0);
      expect(Math.abs(veilOf(lights, solids, driver.eye, 80).mean / mean - 1)).toBeLessThan(0.005);
    },
  );
  test('of a build: the shares add up, white is part of it, thicker fog throws more', () => {
    const driver = driverOf(lookupOf(car).vehicle, 'right');
    if (driver === null) throw new Error('the car has a seat');
    const lights = lightsIn(car, stateWith({ on: ['white', 'stage-2'] }));
    const solids = solidsIn(lookupOf(car).vehicle, []);
    const found = veilOf(lights, solids, driver.eye, 80);
    expect(found.byLamp.reduce((sum, one) => sum + one.mean, 0)).toBeCloseTo(found.mean, 6);
    // Halves that alternate are never at their highest together.
    const each = found.byLamp.reduce((sum, one) => sum + one.highest, 0);
    expect(found.highest).toBeLessThan(0.95 * each);
    expect(found.withoutWhite.highest).toBeLessThan(found.highest);
    expect(found.withoutWhite.highest + found.white.highest).toBeGreaterThanOrEqual(found.highest - 1e-9);
    expect(found.withoutWhite.mean + found.white.mean).toBeCloseTo(found.mean, 9);
    expect(found.white.highest).toBeGreaterThan(0);
    expect(found.white.highest).toBeLessThan(found.highest);
    expect(found.mean).toBeLessThan(found.highest);
    expect(veilOf(lights, solids, driver.eye, 50).highest).toBeGreaterThan(found.highest);
    // The windscreen takes its share, once.
    const noGlass = solids.filter(({ transmission }) => transmission === 0);
    expect(veilOf(lights, noGlass, driver.eye, 80).highest).toBeGreaterThan(found.highest);
  });
});

describe('glare', () => {
  test('both sides of a mirrored build are dazzled alike; a lamp behind the eye is not', () => {
    const stations = stationsOf(pumper);
    const lights = lightsIn(pumper, stateWith({ on: ['scene-light'] }));
    const at = (id: string) => {
      const station = stations.find((one) => one.id === id);
      if (station === undefined) throw new Error(id);
      return glareAt(lights, station);
    };
    expect(at('left-side').highest).toBeCloseTo(at('right-side').highest, 6);
    expect(at('left-side').highest).toBeGreaterThan(1);
    expect(at('roadside').highest).toBe(0);
  });
  test('a lamp before the windscreen reaches the driver: what stands behind the eye takes nothing of it', () => {
    const { vehicle } = lookupOf(car);
    const driver = driverOf(vehicle, 'right');
    if (driver === null) throw new Error('the car has a seat');
    const [x, y, z] = driver.eye;
    const centre = [x + 2, y, z] as const;
    const past = occluderAt(layOut(solidsIn(vehicle, [])), centre);
    const lamp = { centre, cdToward: (d: Vec3, farM: number) => 100 * past(d, farM) };
    // 100 cd from 2 m are 25 lx; the glass before takes some.
    const lx = planeLx([lamp], driver.eye, driver.view);
    expect(lx).toBeGreaterThan(15);
    expect(lx).toBeLessThanOrEqual(25);
    expect(past([-1, 0, 0])).toBeLessThan(past([-1, 0, 0], 2) - 0.1);
  });
  test('function by function: each sends an eye what it does when it is on alone, its lamps add up to it', () => {
    const roadside = stationsOf(pumper).find(({ id }) => id === 'roadside');
    if (roadside === undefined) throw new Error('somebody stands at the roadside');
    const lightsOf = (...on: string[]) => lightsIn(pumper, stateWith({ on }));
    const found = eyeLightByFunction(lightsOf('stage-2', 'scene-light'), roadside);
    expect(found.map(({ on }) => on).toSorted()).toEqual(['scene-light', 'stage-2']);
    for (const { on, eyeLx, byLamp } of found) {
      expect(eyeLx).toBeCloseTo(glareAt(lightsOf(on), roadside).eyeLx, 9);
      const sum = byLamp.reduce((lx, one) => lx + one.eyeLx, 0);
      // Of lamps that flash in turn no instant has all.
      if (on === 'scene-light') expect(sum).toBeCloseTo(eyeLx, 9);
      else expect(sum).toBeGreaterThan(eyeLx);
    }
    expect(found[0]?.eyeLx).toBeGreaterThanOrEqual(found[1]?.eyeLx ?? Infinity);
    // Who stands behind the vehicle has all of it before, whichever way he looks.
    for (const { bearingDeg } of found.flatMap(({ byLamp }) => byLamp))
      expect(Math.min(bearingDeg, 360 - bearingDeg)).toBeLessThan(60);
    expect(eyeLightByFunction(lightsOf(), roadside)).toEqual([]);
  });
  test('shares add up, the mean stays below the highest, and two lamps dazzle more than one', () => {
    const [eye] = eyesInLane('following', 'right').filter(({ distanceM }) => distanceM === 50);
    if (eye === undefined) throw new Error('50 m is looked at');
    const lights = lightsIn(car, stage2);
    const whole = glareAt(lights, eye);
    expect(whole.byLamp.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(whole.mean).toBeLessThan(whole.highest);
    const first = whole.byLamp[0]?.placementId;
    const without = glareAt(
      lights.filter(({ placementId }) => placementId !== first),
      eye,
    );
    expect(without.mean).toBeCloseTo(whole.mean * (1 - (whole.byLamp[0]?.share ?? 0)), 9);
  });
});

describe('light on the ground', () => {
  const lamps = sourcesOf(lightsIn(pumper, stateWith({ on: ['scene-light'] })), 'steady');
  const outline = outlineOf(lookupOf(pumper).vehicle);
  const grid = runToCompletion(groundGrid(lamps, outline, { stepM: 1, beyondM: 15 }));

  test('each point as a plain sum over all lamps gives it', () => {
    let lit = 0;
    for (let row = 0; row < grid.rows; row++)
      for (let column = 0; column < grid.columns; column++) {
        const at: Vec3 = [grid.fromX + column, grid.fromY + row, 0];
        const plain = planeLx(lamps, at);
        if (plain > 1) lit++;
        expect(Math.abs((grid.lx[row * grid.columns + column] ?? 0) - plain)).toBeLessThan(0.02);
      }
    expect(lit).toBeGreaterThan(100);
  });
  test('points lie on whole steps from the origin and reach as far as asked', () => {
    expect(Number.isInteger(grid.fromX) && Number.isInteger(grid.fromY)).toBe(true);
    expect(grid.fromX).toBe(Math.ceil(outline.rearX - 15));
    expect(grid.fromX + grid.columns - 1).toBe(Math.floor(outline.frontX + 15));
  });
  test('what flashes is left out', () => {
    const flashing = lightsIn(pumper, stage2).map((light) => ({
      ...light,
      drives: light.drives.filter(({ steady }) => !steady),
    }));
    expect(sourcesOf(flashing, 'steady')).toEqual([]);
  });
  test('an area: mean, least, evenness and what lies above a limit', () => {
    const even: GroundGrid = {
      stepM: 1,
      fromX: 0,
      fromY: 0,
      columns: 2,
      rows: 2,
      lx: Float32Array.of(10, 20, 30, 40),
    };
    const all = { rearX: 0, frontX: 1, rightY: 0, leftY: 1 };
    expect(areaLight(even, all, 20)).toEqual({ meanLx: 25, leastLx: 10, evenness: 0.4, aboveShare: 0.75 });
    expect(areaLight(even, { ...all, frontX: 0.5 }, 20).meanLx).toBe(20);
    expect(areaLight(even, { ...all, rearX: 5, frontX: 6 }, 20).meanLx).toBe(0);
  });
  test('a mast doubles nothing: twice the light is twice the lux', () => {
    const doubled = lamps.map((lamp) => ({
      ...lamp,
      cdToward: (d: Vec3, farM: number) => 2 * lamp.cdToward(d, farM),
    }));
    const at: Vec3 = [0, 4, 0];
    expect(planeLx(doubled, at)).toBeCloseTo(2 * planeLx(lamps, at), 6);
    expect(planeLx(lamps, turned(at, Math.PI))).toBeCloseTo(planeLx(lamps, at), 6);
  });
});

describe('all directions', () => {
  test('each row of the map is the ring at its elevation', () => {
    const options = { colour: null, level: 'any', upperAboveM: 1.5 } as const;
    const map = runToCompletion(directionMap(car, stage2, options, 'power'));
    for (const elevationDeg of [-30, 0, 12, 60]) {
      const row = map.elevationsDeg.indexOf(elevationDeg);
      const ring = powerRing(litChannels(car, stage2, { ...options, elevationDeg }));
      expect([...map.values.subarray(row * 360, row * 360 + 360)]).toEqual([...ring]);
    }
  });
  test('what hides a lamp is named: behind the raised hatch its own panel lamps go', () => {
    const shut = hiddenToward(car, stage2, { bearingDeg: 180, elevationDeg: 0 });
    const open = hiddenToward(car, stateWith({ on: ['stage-2'], open: ['hatch'] }), {
      bearingDeg: 180,
      elevationDeg: 0,
    });
    const names = open.map(({ by }) => by);
    expect(names).toContain('hatch');
    expect(shut.map(({ by }) => by)).not.toContain('hatch');
    for (const { aimedCd, arrivesCd, from, to } of open) {
      expect(aimedCd).toBeGreaterThan(arrivesCd);
      expect(to[0]).toBeLessThanOrEqual(from[0]);
    }
  });
});
