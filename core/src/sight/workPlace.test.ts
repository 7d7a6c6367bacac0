import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { layOut, occluderAt } from '../coverage/occlusion.ts';
import { setTraffic, addOwn } from '../design/ownEdits.ts';
import { FACINGS, type Facing, type WorkPlace } from '../design/site.ts';
import type { Build } from '../design/schema.ts';
import { box, type Solid } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { stateWith } from '../state/state.ts';
import { eyesInLane, glareAt } from './glare.ts';
import { areaLight, groundGrid, planeLx, workAreasOf } from './ground.ts';
import { runToCompletion } from '../words/inSteps.ts';
import { lightsIn, sourcesOf } from './source.ts';
import { outlineOf, stationsOf } from './stations.ts';
import { Surfaces } from './surfaces.ts';
import {
  cornersOf,
  extentOf,
  lampsLighting,
  placeOf,
  stretchAbove,
  interreflectedLx,
  usualWorkPlaces,
  workPlaceLx,
} from './workPlace.ts';

const pumper = demoBuild('tunnel-pumper-3');
const lamp = { centre: [0, 0, 2.5] as Vec3, cdToward: () => 2000 };
/** A rectangle unless said otherwise. */
const place = ({
  alongM = 0,
  acrossM = 0,
  ...patch
}: Partial<WorkPlace> & { alongM?: number; acrossM?: number }): WorkPlace => ({
  id: 'p',
  name: 'P',
  xM: 0,
  yM: 0,
  zM: 0,
  facing: 'up',
  shape: { kind: 'rectangle', alongM, acrossM },
  ...patch,
});

const NORMALS: Readonly<Record<Facing, Vec3>> = {
  up: [0, 0, 1],
  front: [1, 0, 0],
  rear: [-1, 0, 0],
  left: [0, 1, 0],
  right: [0, -1, 0],
};

describe('work places', () => {
  test('a point on the ground reads what the inverse square and cosine laws say: 320 lx beneath, 83.96 lx 3 m aside', () => {
    expect(workPlaceLx([lamp], place({}))).toEqual([320]);
    expect(workPlaceLx([lamp], place({ yM: 3 }))[0]).toBeCloseTo(83.96, 2);
  });
  test('upright it reads the other share: both squared make the light across the ray', () => {
    // Toward the lamp: 2000 / (9 + 6.25) lx across the ray, 2.5/√15.25 of it level and 3/√15.25 upright.
    const level = workPlaceLx([lamp], place({ yM: 3 }))[0] ?? 0;
    const upright = workPlaceLx([lamp], place({ yM: 3, facing: 'right' }))[0] ?? 0;
    expect(Math.hypot(level, upright)).toBeCloseTo(2000 / 15.25, 6);
    expect(workPlaceLx([lamp], place({ yM: 3, facing: 'left' }))).toEqual([0]);
  });
  test.each(FACINGS)(
    'facing %s: every point lies on the plane, both edges among them, each as planeLx has it',
    (facing) => {
      const one = place({ xM: 1, yM: 2, zM: 3, facing, alongM: 1, acrossM: 0.5 });
      const values = workPlaceLx([lamp], one);
      expect(values).toHaveLength(5 * 3);
      const normal = NORMALS[facing];
      const corners = cornersOf(one);
      for (const corner of corners) {
        const off = corner.reduce((sum, v, i) => sum + (v - ([1, 2, 3][i] ?? 0)) * (normal[i] ?? 0), 0);
        expect(off).toBeCloseTo(0, 12);
      }
      const atCorners = corners.map((corner) => planeLx([lamp], corner, normal));
      const ends = [values[0], values.at(-1), values[2], values.at(-3)];
      const sorted = (list: readonly (number | undefined)[]) => list.toSorted((a, b) => (a ?? 0) - (b ?? 0));
      expect(sorted(ends)).toEqual(sorted(atCorners));
    },
  );
  test('a place of any size is looked at in so many points, and no more', () => {
    expect(workPlaceLx([lamp], place({ alongM: 60, acrossM: 60 }))).toHaveLength(41 * 41);
  });
  test('a place by its corners is looked at inside them alone, its corners among the points', () => {
    const corners = (...at: readonly (readonly [number, number])[]): WorkPlace =>
      place({
        xM: 1,
        shape: { kind: 'corners', corners: at.map(([alongM, acrossM]) => ({ alongM, acrossM })) },
      });
    // The same rectangle by its corners, whichever way round and wherever its middle stands.
    const bed = workPlaceLx([lamp], place({ xM: 1, alongM: 1, acrossM: 0.5 }));
    const sorted = (lx: readonly number[]) => lx.toSorted((a, b) => a - b);
    for (const four of [
      corners([-0.5, -0.25], [0.5, -0.25], [0.5, 0.25], [-0.5, 0.25]),
      corners([-0.5, 0.25], [0.5, 0.25], [0.5, -0.25], [-0.5, -0.25]),
      { ...corners([-1.5, -0.25], [-0.5, -0.25], [-0.5, 0.25], [-1.5, 0.25]), xM: 2 },
    ])
      expect(sorted(workPlaceLx([lamp], four))).toEqual(sorted(bed));
    // Two metres square without a quarter: 9 × 9 points less 4 × 4.
    const angled = corners([-1, -1], [1, -1], [1, 0], [0, 0], [0, 1], [-1, 1]);
    expect(workPlaceLx([lamp], angled)).toHaveLength(9 * 9 - 4 * 4);
    expect(extentOf(angled)).toEqual({ alongM: 2, acrossM: 2 });
    // Beneath the lamp lies the inner corner's neighbour a metre back, not the quarter that is cut out.
    const inside = workPlaceLx([lamp], { ...angled, xM: 0.5, yM: 0.5 });
    const whole = workPlaceLx([lamp], place({ xM: 0.5, yM: 0.5, alongM: 2, acrossM: 2 }));
    expect(Math.max(...inside)).toBe(320);
    expect(Math.min(...inside)).toBeGreaterThan(Math.min(...whole));
    // A figure with slanted edges has its corners, which the grid misses.
    const kite = corners([-0.33, 0], [0, -0.41], [0.33, 0], [0, 0.41]);
    const lx = workPlaceLx([lamp], kite);
    for (const corner of cornersOf(kite)) expect(lx).toContainEqual(planeLx([lamp], corner));
  });
  test('along a strip of road the light begins and ends where it passes a limit', () => {
    // 2 000 cd all round at 1 m above the road's near end: E = 2000 h / (h² + d²)^1.5.
    const torch = { centre: [0, 0, 1] as const, cdToward: () => 2000 };
    const road = place({ xM: 40, alongM: 80, acrossM: 0 });
    const lx = workPlaceLx([torch], road);
    const farM = Math.sqrt((2000 / 1) ** (2 / 3) - 1);
    const found = stretchAbove(road, lx, 1);
    expect(found?.fromM).toBe(0);
    expect(found?.toM).toBeGreaterThan(farM - 2);
    expect(found?.toM).toBeLessThanOrEqual(farM);
    expect(stretchAbove(road, lx, 1e6)).toBeNull();
    // Behind the vehicle the near end is the other one.
    const behind = place({ xM: -40, alongM: 80, acrossM: 0 });
    expect(stretchAbove(behind, workPlaceLx([torch], behind), 1)).toEqual(found);
  });
  test('on the skin of the body the body itself throws no shadow; behind it, it does', () => {
    const outline = outlineOf(lookupOf(pumper).vehicle);
    const lamps = sourcesOf(lightsIn(pumper, stateWith({ on: ['scene-light'] })), 'steady');
    const panel = usualWorkPlaces(outline).find(({ facing }) => facing === 'left');
    if (panel === undefined) throw new Error('there is a panel');
    const aside = workPlaceLx(lamps, { ...panel, id: 'p', yM: outline.leftY + 2, facing: 'right' });
    expect(Math.max(...aside)).toBeGreaterThan(10);
    // Under the floor between the wheels no lamp of the upper body reaches.
    expect(Math.max(...workPlaceLx(lamps, place({ xM: (outline.rearX + outline.frontX) / 2 })))).toBeLessThan(
      1,
    );
  });
});

describe('the side that traffic keeps to', () => {
  test('oncoming eyes, the driver and the roadside change sides; a mirrored build dazzles them alike', () => {
    const lights = lightsIn(pumper, stateWith({ on: ['scene-light'] }));
    const left = setTraffic(pumper, 'left');
    const eyeOf = (build: typeof pumper, id: string) =>
      stationsOf(build).find((one) => one.id === id)?.eye ?? [0, 0, 0];
    expect(eyeOf(left, 'driver')[1]).toBeCloseTo(-eyeOf(pumper, 'driver')[1], 9);
    expect(eyeOf(left, 'roadside')[1]).toBeCloseTo(-eyeOf(pumper, 'roadside')[1], 9);
    for (const [i, eye] of eyesInLane('oncoming', 'right').entries()) {
      const other = eyesInLane('oncoming', 'left')[i];
      if (other === undefined) throw new Error('as many eyes');
      expect(other.eye[1]).toBe(-eye.eye[1]);
      expect(glareAt(lights, other).highest).toBeCloseTo(glareAt(lights, eye).highest, 6);
    }
  });
  test('an eye of the build’s own is looked at as the usual ones are', () => {
    const usual = stationsOf(pumper).find(({ id }) => id === 'left-side');
    if (usual === undefined) throw new Error('there is one');
    const [xM, yM, zM] = usual.eye;
    const own = addOwn(pumper, 'eyes', {
      id: 'left-side',
      name: 'Mine',
      xM,
      yM,
      zM,
      lookDeg: 90,
      upDeg: 0,
    });
    const lights = lightsIn(pumper, stateWith({ on: ['scene-light'] }));
    const found = stationsOf(own).filter(({ name }) => name === 'Mine');
    expect(found.map((one) => glareAt(lights, one).highest)).toEqual([
      expect.closeTo(glareAt(lights, usual).highest, 9),
    ]);
    expect(new Set(stationsOf(own).map(({ id }) => id)).size).toBe(stationsOf(own).length);
  });
});

describe('what is thrown back to a work place', () => {
  const { vehicle } = lookupOf(demoBuild('ks-13'));
  const place = (facing: WorkPlace['facing'], [xM, yM, zM]: Vec3, size = 0): WorkPlace => ({
    id: 'place',
    name: 'Place',
    xM,
    yM,
    zM,
    facing,
    shape: { kind: 'rectangle', alongM: size, acrossM: size },
  });
  const lamp = (centre: Vec3, shadows: readonly Solid[] = []) => ({
    centre,
    cdToward: (direction: Vec3, farM: number) => 1000 * occluderAt(layOut(shadows), centre)(direction, farM),
  });

  test('a wall beside it sends back what falls on it, dark film next to nothing, and none comes round it', () => {
    const wall = box('wall', [-5, 2, 0], [5, 2.2, 6]);
    const dark = [
      { surface: 'wall', percent: 1 },
      { surface: 'road', percent: 0 },
    ];
    const lamps = [lamp([0, 1, 2], [wall])];
    const at = (finishes: Build['finishes'], facing: WorkPlace['facing']) =>
      interreflectedLx(new Surfaces(vehicle, [wall], finishes), lamps, place(facing, [0, 0.5, 1]));
    const noRoad = [{ surface: 'road', percent: 0 }];
    expect(at(noRoad, 'left')).toBeGreaterThan(20);
    expect(at(dark, 'left')).toBeCloseTo(at(noRoad, 'left') / 50, 9);
    expect(at(noRoad, 'right')).toBe(0);
  });

  test('in a closed box as much light falls on its walls again as they throw back: ρ times what came first', () => {
    const walls = [
      box('floor', [-1.2, -1.2, 0.8], [1.2, 1.2, 1]),
      box('ceiling', [-1.2, -1.2, 3], [1.2, 1.2, 3.2]),
      box('rear', [-1.2, -1.2, 1], [-1, 1.2, 3]),
      box('front', [1, -1.2, 1], [1.2, 1.2, 3]),
      box('right', [-1.2, -1.2, 1], [1.2, -1, 3]),
      box('left', [-1.2, 1, 1], [1.2, 1.2, 3]),
    ];
    const lamps = [lamp([0, 0, 2], walls)];
    const around = new Surfaces(vehicle, walls, []);
    // The four walls and the floor are alike seen from the middle, and so is the ceiling.
    const again = interreflectedLx(around, lamps, place('up', [0, 0, 1.001], 1.98));
    const first = (4 * Math.PI * 1000) / (6 * 2 * 2);
    expect(again / (0.5 * first)).toBeGreaterThan(0.9);
    expect(again / (0.5 * first)).toBeLessThan(1.1);
  });
});

describe('which lamps light a place', () => {
  const lamps = sourcesOf(lightsIn(pumper, stateWith({ on: ['scene-light'] })), 'steady');
  const outline = outlineOf(lookupOf(pumper).vehicle);
  const panel: WorkPlace = place({ name: 'Panel', xM: -1, yM: 2.6, alongM: 2, acrossM: 1 });

  test('lamp by lamp it adds up to the mean, and to what the darkest point gets', () => {
    const lx = workPlaceLx(lamps, panel);
    const found = lampsLighting(lamps, panel);
    expect(found.length).toBeGreaterThan(2);
    expect(found.reduce((sum, { meanLx }) => sum + meanLx, 0)).toBeCloseTo(
      lx.reduce((a, b) => a + b, 0) / lx.length,
      9,
    );
    expect(found.reduce((sum, { atDarkestLx }) => sum + atDarkestLx, 0)).toBeCloseTo(Math.min(...lx), 9);
    const means = found.map(({ meanLx }) => meanLx);
    expect(means).toEqual(means.toSorted((a, b) => b - a));
  });
  test('a near lamp gives most of the mean, a far one most where it is darkest', () => {
    const near = { placementId: 'near', centre: [0, 0, 1] as Vec3, cdToward: () => 100 };
    const far = { placementId: 'far', centre: [20, 0, 8] as Vec3, cdToward: () => 10_000 };
    const [first, second] = lampsLighting([far, near], place({ xM: 3, alongM: 6, acrossM: 1 }));
    expect([first?.placementId, second?.placementId]).toEqual(['near', 'far']);
    expect(second?.atDarkestLx).toBeGreaterThan(first?.atDarkestLx ?? Infinity);
  });
  test('a strip of ground as a place gets what its piece of the grid gets', () => {
    const grid = runToCompletion(groundGrid(lamps, outline, { stepM: 0.25, beyondM: 5 }));
    // Before and behind the body light comes past its corners alone: there an edge more or less is all of it.
    for (const area of workAreasOf(outline).filter(({ id }) => id === 'left' || id === 'right')) {
      const byLamp = lampsLighting(lamps, placeOf(area));
      const { meanLx } = areaLight(grid, area, 10);
      const mean = byLamp.reduce((sum, one) => sum + one.meanLx, 0);
      expect(Math.abs(mean - meanLx)).toBeLessThan(0.05 * meanLx);
    }
  });
});
