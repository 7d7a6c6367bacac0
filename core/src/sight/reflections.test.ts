import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { ownZone } from '../../test/reference/places.ts';
import { addOwn } from '../arrange/vehicleEdits.ts';
import type { Build } from '../design/schema.ts';
import { directionOf } from '../geometry/direction.ts';
import { add, cross, dot, length, scale, sub, unit, type Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { stateWith } from '../state/state.ts';
import { imagesIn, reflectionsAt, type Mirror } from './reflections.ts';
import { lightsIn, type ModuleLight } from './source.ts';
import { driverOf } from './stations.ts';

const wall = (reflectance = 0.5): Mirror => ({
  name: 'wall',
  polygon: [
    [0, -1, 0],
    [0, 1, 0],
    [0, 1, 2],
    [0, -1, 2],
  ],
  normal: [-1, 0, 0],
  reflectance: () => reflectance,
});

describe('the image of a lamp in a flat mirror', () => {
  test('stands as far behind it, and the whole way is as long', () => {
    // 3-4-5: 1.5 m and 2.5 m before the wall, 3 m apart along it.
    const [image, ...more] = imagesIn([wall()], [-1.5, -0.9, 1], [-2.5, 2.1, 1]);
    expect(more).toEqual([]);
    expect(image?.reflectance).toBe(0.5);
    expect(length(sub(image?.behind ?? [0, 0, 0], [-2.5, 2.1, 1]))).toBeCloseTo(5, 12);
    expect(image?.at[1]).toBeCloseTo(-0.9 + (3 * 1.5) / 4, 12);
  });

  test('is not there beside the mirror, behind it, or for an eye behind it', () => {
    expect(imagesIn([wall()], [-1, 1.2, 1], [-1, 1.4, 1])).toEqual([]);
    expect(imagesIn([wall()], [1, 0, 1], [-1, 0, 1])).toEqual([]);
    expect(imagesIn([wall()], [-1, 0, 1], [1, 0, 1])).toEqual([]);
  });

  test('is where the way is shortest, and falls on it as flat as it leaves', () => {
    const coordinate = fc.integer({ min: -300, max: 300 }).map((cm) => cm / 100);
    const point = fc.tuple(coordinate, coordinate, coordinate);
    let seen = 0;
    fc.assert(
      fc.property(point, point, point, point, (middle, turned, lamp, eye) => {
        fc.pre(length(turned) > 0.1 && Math.abs(unit(turned)[2]) < 0.99);
        const normal = unit(turned);
        const off = (p: Vec3): number => Math.abs(dot(normal, sub(p, middle)));
        fc.pre(off(lamp) > 0.01 && off(eye) > 0.01);
        const across = unit(cross([0, 0, 1], normal));
        const up = cross(normal, across);
        const at = (a: number, b: number): Vec3 => add(middle, add(scale(across, a), scale(up, b)));
        const polygon = [at(-2, -2), at(2, -2), at(2, 2), at(-2, 2)];
        let cosSeen = 0;
        const mirror: Mirror = { name: 'm', polygon, normal, reflectance: (cos) => (cosSeen = cos) };
        const [image] = imagesIn([mirror], lamp, eye);
        if (image === undefined) return;
        seen++;
        const wayBy = (p: Vec3): number => length(sub(p, lamp)) + length(sub(p, eye));
        const shortest = wayBy(image.at);
        for (let a = -2; a <= 2; a += 0.5)
          for (let b = -2; b <= 2; b += 0.5) expect(wayBy(at(a, b))).toBeGreaterThanOrEqual(shortest - 1e-9);
        expect(Math.abs(dot(normal, sub(image.at, middle)))).toBeLessThan(1e-9);
        expect(dot(normal, unit(sub(lamp, image.at)))).toBeCloseTo(cosSeen, 9);
        expect(dot(normal, unit(sub(eye, image.at)))).toBeCloseTo(cosSeen, 9);
        expect(length(sub(image.behind, eye))).toBeCloseTo(shortest, 9);
        expect(image.reflectance).toBeCloseTo(cosSeen, 9);
        // The way back is the same way.
        const [back] = imagesIn([mirror], eye, lamp);
        expect(back?.reflectance).toBeCloseTo(image.reflectance, 9);
        expect(length(sub(back?.at ?? eye, image.at))).toBeLessThan(1e-9);
      }),
      { numRuns: 300, seed: 61 },
    );
    expect(seen).toBeGreaterThan(30);
  });
});

describe('what the driver sees in the own glass', () => {
  const car = demoBuild('ks-13');
  const bare = { ...car, placements: [] };
  const driver = driverOf(lookupOf(car).vehicle, car.traffic);
  if (driver === null) throw new Error('a car has a seat');
  const [like] = lightsIn(car, stateWith({ on: ['stage-2'] }));
  const [drive] = like?.drives ?? [];
  /** A lamp of 1000 cd all round, half of the time. */
  function lampAt(centre: Vec3): ModuleLight {
    if (like === undefined || drive === undefined) throw new Error('something lights');
    const spans = [{ fromMs: 0, toMs: 500, level: 1 }];
    const flashing = { ...drive, steady: false, cycleMs: 1000, peakCd: 1000, spans };
    return { ...like, centre, shareToward: () => 1, drives: [flashing] };
  }
  const before: Vec3 = add(driver.eye, [0.3, 0, -0.2]);

  test('a lamp in the cab is seen in the windscreen: 8 % and more of it, by the whole way', () => {
    const [first] = reflectionsAt(bare, [], [lampAt(before)], driver);
    expect(first?.mirror).toBe('windscreen');
    expect(first?.byLamp).toEqual([{ placementId: like?.placementId, share: 1 }]);
    // It is seen ahead and above, nearer than 3 m: more than 8.2 % of 1000 cd from there.
    expect(first?.elevationDeg).toBeGreaterThan(0);
    expect(first?.eyeLx).toBeGreaterThan((0.0817 * 1000) / 3 ** 2);
    expect(first?.eyeLx).toBeLessThan((0.0817 * 1000) / 0.3 ** 2);
    expect(first?.mean).toBeCloseTo((first?.highest ?? NaN) / 2, 12);
    // On the plane across the view, as all glare is: 10 E cos θ / θ².
    const seen = directionOf(first?.bearingDeg ?? 0, first?.elevationDeg ?? 0);
    const offDeg = (Math.acos(dot(seen, driver.view)) * 180) / Math.PI;
    const lv = (10 * (first?.eyeLx ?? NaN) * dot(seen, driver.view)) / offDeg ** 2;
    expect(first?.highest).toBeCloseTo(offDeg > 60 ? 0 : lv, 9);
    // Two that take turns are never seen at once.
    const later = lampAt(before);
    const turns = {
      ...later,
      drives: later.drives.map((d) => ({
        ...d,
        channelId: `${d.channelId}/later`,
        spans: [{ fromMs: 500, toMs: 1000, level: 1 }],
      })),
    };
    const alternating = reflectionsAt(bare, [], [lampAt(before), turns], driver)[0];
    expect(alternating?.eyeLx).toBeCloseTo(first?.eyeLx ?? NaN, 9);
    expect(alternating?.mean).toBeCloseTo(2 * (first?.mean ?? NaN), 9);
    // Twice the lamps, twice the light.
    const twin = lampAt(before);
    const other = { ...twin, drives: twin.drives.map((d) => ({ ...d, channelId: `${d.channelId}/twin` })) };
    const twice = reflectionsAt(bare, [], [lampAt(before), other], driver)[0];
    expect(twice?.eyeLx).toBeCloseTo(2 * (first?.eyeLx ?? NaN), 9);
  });

  test('what its own shade keeps from the glass, or a housing from the eye, is not', () => {
    const shaded: ModuleLight = { ...lampAt(before), shareToward: () => 0 };
    expect(reflectionsAt(bare, [], [shaded], driver)).toEqual([]);
    const [seen] = reflectionsAt(bare, [], [lampAt(before)], driver);
    if (seen === undefined) throw new Error('it is seen');
    // A head of the car's own, put between the eye and its image, hides it.
    const [head] = car.placements;
    if (head === undefined) throw new Error('the car has lamps');
    const centre = add(driver.eye, scale(directionOf(seen.bearingDeg, seen.elevationDeg), 0.15));
    const zone = ownZone({ id: 'own-ahead', face: 'inside', facing: 'front', centre: [...centre] });
    const there = { ...head, zoneId: 'own-ahead', uM: 0, vM: 0 };
    const behind = { ...addOwn(bare, 'zones', [zone]), placements: [there] };
    const mirrors = (build: Build) =>
      reflectionsAt(build, [], [lampAt(before)], driver).map(({ mirror }) => mirror);
    expect(mirrors(bare)).toContain(seen.mirror);
    expect(mirrors(behind)).not.toContain(seen.mirror);
    expect(mirrors({ ...behind, placements: [{ ...there, status: 'removed' }] })).toContain(seen.mirror);
  });

  test('a lamp far behind, beside the car, is seen in the mirror of its side, and turned back where it stands', () => {
    const found = reflectionsAt(bare, [], [lampAt([-12, 1.8, 1])], driver);
    const mirror = found.find((one) => one.mirror === 'left mirror');
    expect(mirror).toBeDefined();
    expect(found.some((one) => one.mirror === 'right mirror')).toBe(false);
    // Between 40 and 80 % of what comes from there and back, past the door's glass.
    expect(mirror?.eyeLx).toBeGreaterThan((0.3 * 1000) / 15 ** 2);
    expect(mirror?.eyeLx).toBeLessThan((0.55 * 1000) / 12 ** 2);
    const named = (build: Build, open: string[]) =>
      reflectionsAt(build, open, [lampAt([-12, 1.8, 1])], driver).filter(
        (one) => one.mirror === 'left mirror',
      );
    expect(named(bare, ['door-front-left'])).toEqual([]);
    expect(named(bare, ['door-front-right'])).toHaveLength(1);
    // Wide mirrors stand in place of the usual ones.
    const wide = named({ ...bare, vehicle: { ...bare.vehicle, options: ['wide-mirrors'] } }, []);
    expect(wide).toHaveLength(1);
    expect(wide[0]?.eyeLx).not.toBe(mirror?.eyeLx);
    expect(mirror?.bearingDeg).toBeGreaterThan(270);
    expect(mirror?.bearingDeg).toBeLessThan(350);
  });
});
