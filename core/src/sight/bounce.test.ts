import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import type { Build } from '../design/schema.ts';
import { box, type Solid } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { stateWith } from '../state/state.ts';
import { bouncesAt } from './bounce.ts';
import { lightsIn, type ModuleLight } from './source.ts';
import { driverOf, solidsIn } from './stations.ts';
import { Surfaces } from './surfaces.ts';

const car = demoBuild('ks-13');
const { vehicle } = lookupOf(car);
const [like] = lightsIn(car, stateWith({ on: ['stage-2'] }));
const [drive] = like?.drives ?? [];

/** A steady lamp of 1000 cd all round, in free air. */
function lampAt(centre: Vec3): ModuleLight {
  if (like === undefined || drive === undefined) throw new Error('something lights');
  const steady = { ...drive, steady: true, cycleMs: 1000, peakCd: 1000, spans: [{ ...ON }] };
  return { ...like, centre, shareToward: () => 1, drives: [steady] };
}
const ON = { fromMs: 0, toMs: 1000, level: 1 };

const around = (solids: readonly Solid[], finishes: Build['finishes'] = []): Surfaces =>
  new Surfaces(vehicle, solids, finishes);

describe('light thrown back by one bounce', () => {
  const eye: Vec3 = [0, 0, 1.3];

  test('from the road: its luminance is 0.07 cd/m² for each lux on it', () => {
    const lamp = lampAt([1.3, 0, 2]);
    const [road, ...more] = bouncesAt(around([]), [lamp], eye);
    expect(more).toEqual([]);
    // The view 45° down meets the road right under the lamp: 1000 cd at 2 m.
    expect(road).toMatchObject({ surface: 'road', bearingDeg: 0, elevationDeg: -45 });
    expect(road?.highest).toBeCloseTo((0.07 * 1000) / 2 ** 2, 1);
    expect(road?.mean).toBeCloseTo(road?.highest ?? NaN, 9);
    expect(road?.byLamp).toEqual([{ placementId: lamp.placementId, share: 1 }]);
  });

  test('from a bonnet, through glass, and not from its far side', () => {
    const bonnet = box('bonnet', [1, -1, 0.5], [3, 1, 1]);
    const glass = box('glass', [0.4, -1, 0], [0.5, 1, 2], { transmission: 0.5 });
    const clear = bouncesAt(around([bonnet]), [lampAt([2, 0, 2])], eye);
    const behind = bouncesAt(around([bonnet, glass]), [lampAt([2, 0, 2])], eye);
    const of = (list: typeof clear) => list.find(({ surface }) => surface === 'bonnet');
    // Seen flat, 10° down at 1.7 m: E is that of 1000 cd 1 m above, a little off its foot.
    expect(of(clear)?.highest).toBeGreaterThan((0.5 / Math.PI) * 1000 * 0.8);
    expect(of(clear)?.highest).toBeLessThanOrEqual((0.5 / Math.PI) * 1000);
    expect(of(behind)?.highest).toBeCloseTo((of(clear)?.highest ?? NaN) / 2, 9);
    // A lamp below lights its underside, which the eye does not see.
    const below = lampAt([2, 0, 0.2]);
    expect(of(bouncesAt(around([bonnet]), [below], eye))).toBeUndefined();
    expect(of(bouncesAt(around([bonnet]), [lampAt([2, 0, 2]), below], eye))?.highest).toBe(
      of(clear)?.highest,
    );
  });

  test('of a matt bonnet and a wet road as much less as the build says', () => {
    const bonnet = box('bonnet', [1, -1, 0.5], [3, 1, 1]);
    const matt = [
      { surface: 'bonnet', percent: 5 },
      { surface: 'road', percent: 11 },
    ];
    const highest = (finishes: Build['finishes'], surface: string) =>
      bouncesAt(around([bonnet], finishes), [lampAt([2, 0, 2])], eye).find((b) => b.surface === surface);
    expect(highest(matt, 'bonnet')?.reflectance).toBe(0.05);
    expect(highest([], 'bonnet')?.reflectance).toBe(0.5);
    expect(highest(matt, 'bonnet')?.highest).toBeCloseTo((highest([], 'bonnet')?.highest ?? NaN) / 10, 9);
    expect(highest(matt, 'road')?.highest).toBeCloseTo(
      ((highest([], 'road')?.highest ?? NaN) * 0.11) / (0.07 * Math.PI),
      9,
    );
  });

  test('from the side of a wall that faces the eye', () => {
    const wall = box('wall', [4, -1, 0], [5, 1, 3]);
    const at = (x: number) =>
      bouncesAt(around([wall]), [lampAt([x, 0, 1.3])], eye).find(({ surface }) => surface === 'wall');
    // Level and straight ahead: 1000 cd at 2 m, square on.
    expect(at(2)).toMatchObject({ bearingDeg: 0, elevationDeg: 0 });
    expect(at(2)?.highest).toBeCloseTo(((0.5 / Math.PI) * 1000) / 4, 0);
    expect(at(7)).toBeUndefined();
  });

  test('on a whole vehicle: nothing when dark, more with more lamps, named by what it is', () => {
    const driver = driverOf(vehicle, 'right');
    if (driver === null) throw new Error('a car has a driver');
    const solids = solidsIn(vehicle, []);
    const at = (on: string[]) =>
      bouncesAt(around(solids), lightsIn(car, stateWith({ on, ambient: 'night' })), driver.eye);
    expect(at(['off'])).toEqual([]);
    const some = at(['stage-2']);
    expect(some.length).toBeGreaterThan(1);
    const all = some.map(({ highest }) => highest);
    expect(all).toEqual(all.toSorted((a, b) => b - a));
    const more = at(['white', 'stage-2']);
    for (const { surface, highest, mean } of some) {
      expect(highest).toBeGreaterThanOrEqual(mean);
      expect(more.find((one) => one.surface === surface)?.highest ?? 0).toBeGreaterThan(0);
      expect(surface).not.toMatch(/-|undefined/);
    }
  });
});
