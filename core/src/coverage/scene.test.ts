import { describe, expect, test } from 'vitest';
import { addToScene, changeInScene, removeFromScene } from '../design/sceneEdits.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { removeGroup } from '../design/timingEdits.ts';
import type { Build } from '../design/schema.ts';
import { readBuild } from '../rules/document.ts';
import { stateWith } from '../state/state.ts';
import { frontAndRear, stageId } from '../../test/reference/places.ts';
import { channelsNear } from './near.ts';
import { inScene, inVehicle, sceneNear, sceneSeen, stateThere } from './scene.ts';

const day = (stage: number) => stateWith({ on: [stageId(stage)] });

describe('a scene of several vehicles', () => {
  const here = frontAndRear();
  const there = frontAndRear();
  const vehicle = {
    id: 'v1',
    buildId: '77777777-7777-4777-8777-777777777777',
    name: 'Other',
    aheadM: 0,
    leftM: 0,
    turnedDeg: 0,
    on: ['stage-2'],
    inStep: [],
  };
  const behind = { aheadM: -60, leftM: 0, heightM: 1.2 };

  test('a point of the scene in a vehicle’s own axes', () => {
    const [x, y] = inVehicle({ ...vehicle, aheadM: 10, leftM: 0, turnedDeg: 90 }, [10, 5, 1]);
    expect([x, y].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([5, 0]);
    const there = inScene(aside(1), inVehicle(aside(1), [3, -4, 1]));
    expect(there.map((v) => Math.round(v * 1e9) / 1e9)).toEqual([3, -4, 1]);
  });

  /** As far from the eye and seen from the same side, but so many degrees further round it. */
  const aside = (times: number, deg = 15) => ({
    ...vehicle,
    aheadM: behind.aheadM + 60 * times * Math.cos((deg * Math.PI) / 180),
    leftM: 60 * times * Math.sin((deg * Math.PI) / 180),
    turnedDeg: deg,
  });

  test('a body from a file in place of the drawn one hides with the doors it still has', () => {
    // A small cube far above: the drawn body is gone, and its doors alone stand in the way.
    const cube = [0, 0.1].flatMap((x) => [0, 0.1].flatMap((y) => [9, 9.1].map((z) => [x, y, z])));
    const mesh = { name: 'Cube', verticesM: cube.flat(), triangles: [0, 1, 2], replacesBody: true };
    const member = (replaced: boolean) => {
      const build: Build = replaced ? { ...there, vehicle: { ...there.vehicle, mesh } } : there;
      return { vehicle: { ...aside(0.5, 0), turnedDeg: 90, on: [] }, build };
    };
    const seenBehind = (replaced: boolean): number =>
      sceneSeen(here, day(2), [member(replaced)], behind, 1).powerCdsPerMin;
    const alone = sceneSeen(here, day(2), [], behind, 1).powerCdsPerMin;
    // The car across the way hides the one behind it; its shut doors hide it still when its body is a file's.
    expect(seenBehind(false)).toBeLessThan(alone);
    expect(seenBehind(true)).toBeLessThan(alone);
  });

  test('two alike beside each other give twice the light; they drift until they are tied', () => {
    const one = sceneSeen(here, day(2), [], behind, 1);
    const two = sceneSeen(here, day(2), [{ vehicle: aside(1), build: there }], behind, 1);
    expect(two.powerCdsPerMin).toBeCloseTo(2 * one.powerCdsPerMin, 6);
    expect(two.worst.highestCd.value).toBeCloseTo(2 * one.worst.highestCd.value, 6);
    expect([one.clocks, two.clocks]).toEqual([1, 2]);
    const tied = sceneSeen(
      here,
      day(2),
      [{ vehicle: { ...aside(1), inStep: [{ here: 'gr', there: 'gr' }] }, build: there }],
      behind,
      1,
    );
    expect(tied.clocks).toBe(1);
    expect(tied.rhythms).toBe(one.rhythms);
    expect(tied.worst.effective.value).toBeCloseTo(2 * one.worst.effective.value, 6);
  });

  test('what burns steadily is light behind the flashes, counted once, and has no rhythm', () => {
    const rear = groupTarget('gr');
    const steady = setCue(here, stageId(2), rear, 1, lightCue(rear, 1, 'steady'));
    const [lamp] = channelsNear(steady, day(2), [-60, 0, 1.2]).filter(({ cd }) => cd > 0);
    const seen = sceneSeen(steady, day(2), [], behind, 1);
    const { cd, distanceM } = lamp ?? { cd: NaN, distanceM: NaN };
    expect(seen.light.background).toBeCloseTo(cd * (Math.hypot(60, 1.2) / distanceM) ** 2, 9);
    expect(seen.light.background).toBeGreaterThan(100);
    expect(seen.powerCdsPerMin).toBeCloseTo(60 * seen.light.background, 6);
    expect([seen.clocks, seen.rhythms]).toEqual([0, 0]);
    expect(seen.worst.highestCd.value).toBeCloseTo(seen.light.background, 9);
  });

  test('further away it counts less, by the square of the distance', () => {
    const alone = sceneSeen(here, day(2), [], behind, 1).powerCdsPerMin;
    const far = aside(2);
    const both = sceneSeen(here, day(2), [{ vehicle: far, build: there }], behind, 1).powerCdsPerMin;
    expect(both / alone).toBeGreaterThan(1.23);
    expect(both / alone).toBeLessThan(1.27);
  });

  test('a vehicle in the way hides the lamps behind it, and not those beside it', () => {
    const near = { ...vehicle, aheadM: -20 };
    const sent = (at: typeof vehicle): number =>
      sceneNear(here, day(2), [{ vehicle: { ...at, on: [] }, build: there }], [-60, 0, 0.5]).reduce(
        (sum, { cd }) => sum + cd,
        0,
      );
    const alone = sceneNear(here, day(2), [], [-60, 0, 0.5]).reduce((sum, { cd }) => sum + cd, 0);
    expect(alone).toBeGreaterThan(100);
    expect(sent(near)).toBeLessThan(alone / 10);
    expect(sent({ ...near, leftM: 5 })).toBeCloseTo(alone, 9);
    // Farther away than the lamps it hides nothing.
    expect(sent({ ...near, aheadM: 20 })).toBeCloseTo(alone, 9);
  });

  test('brought, moved and taken away; a tie goes with its group', () => {
    const buildId = vehicle.buildId;
    const brought = addToScene(here, { id: 'v1', buildId, name: 'Other' });
    const moved = changeInScene(brought, 'v1', { aheadM: -20, inStep: [{ here: 'gf', there: 'gf' }] });
    expect(readBuild(JSON.parse(JSON.stringify(moved)))).toEqual(moved);
    expect(removeGroup(moved, 'gf').scene[0]?.inStep).toEqual([]);
    expect(removeFromScene(moved, 'v1').scene).toEqual([]);
    expect(() => readBuild(changeInScene(moved, 'v1', { inStep: [{ here: 'nobody', there: 'x' }] }))).toThrow(
      /scene\[0\]\.inStep\[0\]\.here: no sync group 'nobody'/,
    );
  });

  test('another vehicle shows what it is said to show, of what it has, everything shut', () => {
    const asked = { ...vehicle, on: ['stage-1', 'no-such', 'stage-3'] };
    expect(stateThere({ vehicle: asked, build: there }, 'night')).toEqual({
      on: ['stage-1', 'stage-3'],
      open: [],
      ambient: 'night',
    });
  });
});
