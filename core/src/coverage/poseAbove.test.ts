import { allPoses } from '../../test/reference/poses.ts';
import { plainHousings } from '../../test/reference/plainHousings.ts';
import { stageId } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import type { Build } from '../design/schema.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { directionOf } from '../geometry/direction.ts';
import { anglesInFrame } from '../geometry/frame.ts';
import { transmissionAlong } from '../geometry/ray.ts';
import type { Drive } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';
import { drivenIn } from '../state/driven.ts';
import { levelsPerMs } from '../../test/reference/perMs.ts';
import { posedSolids, stopsWithShut, vehicleOf } from '../vehicle/vehicle.ts';
import type { StopsOf } from './lampPoses.ts';
import { poseAbove } from './poseAbove.ts';

/** The most that drives send toward a bearing in a pose: every ray against every solid, every millisecond. */
function bruteMostCd(
  build: Build,
  drives: readonly Drive[],
  pose: readonly string[],
  bearing: number,
): number {
  const lookup = lookupOf(build);
  const open = new Set(pose);
  const solids = posedSolids(lookup.vehicle, open);
  const behind = plainHousings(lookup, build.placements, open);
  const direction = directionOf(bearing, 0);
  const sent = drives.flatMap((drive) => {
    const p = build.placements.find(({ id }) => id === drive.placementId);
    const placed =
      p === undefined
        ? undefined
        : placeModules(lookup, p, open).find(({ module }) => module.id === drive.moduleId);
    if (p === undefined || placed === undefined) return [];
    const { hDeg, vDeg } = anglesInFrame(placed.frame, direction);
    const share = relativeIntensity(placed.module.distribution, hDeg, vDeg) * p.lensTransmission;
    if (share * drive.peakCd < 1e-9) return [];
    if (behind(p.id, placed.centre, direction)) return [];
    return [{ drive, cd: drive.peakCd * share * transmissionAlong(solids, placed.centre, direction) }];
  });
  return [...new Set(sent.map(({ drive }) => drive.clockId))].reduce((sum, clock) => {
    const mine = sent.filter(({ drive }) => drive.clockId === clock);
    const cycleMs = Math.max(...mine.map(({ drive }) => drive.cycleMs));
    let most = 0;
    for (let ms = 0; ms < cycleMs; ms++)
      most = Math.max(
        most,
        mine.reduce((now, { drive, cd }) => now + cd * (levelsPerMs(drive)[ms % drive.cycleMs] ?? 0), 0),
      );
    return sum + most;
  }, 0);
}

describe('the search for a pose that is above a limit', () => {
  test.each([
    ['tunnel-pumper-3', 3, 'white', [180]],
    ['ks-12', 3, 'blue', [0, 150, 180]],
    ['ks-13', 3, 'red', [20, 200]],
    ['lift-bridge-crew', 2, 'amber', [0, 120, 178]],
    ['ferry-slip', 2, 'amber', [0, 90, 178]],
  ] as const)('agrees with trying every pose: %s, stage %d, %s', (name, stage, colour, bearings) => {
    const build = demoBuild(name);
    const drives = drivenIn(build, { on: [stageId(stage)], ambient: 'day' }).filter(
      (d) => d.colour === colour,
    );
    // One cycle a clock, so that the plain count need not look for a common one.
    const cycles = new Map(drives.map((d) => [d.clockId, d.cycleMs]));
    const plain = drives.filter((d) => d.cycleMs === cycles.get(d.clockId));
    const poses = allPoses(build);
    for (const bearing of bearings) {
      const light = new Map(poses.map((pose) => [pose.join(), bruteMostCd(build, plain, pose, bearing)]));
      const most = Math.max(...light.values());
      if (most === 0) continue;
      expect(poseAbove(build, plain, [bearing], most * (1 + 1e-9), 0)).toEqual({ found: 'none' });
      for (const share of [0.5, 0.9, 1 - 1e-9]) {
        const limit = share * most;
        const above = poseAbove(build, plain, [bearing], limit, 0);
        if (above.found !== 'pose') throw new Error(`${name} at ${bearing}°: ${above.found}`);
        expect(light.get(above.open.join())).toBeGreaterThan(limit);
        for (const stop of above.open) {
          const less = above.open.filter((id) => id !== stop);
          expect(light.get(less.join()), `${stop} could stay shut`).toBeLessThanOrEqual(limit);
        }
      }
    }
  });

  test('parts that stand fast are left where they stand', () => {
    const build = demoBuild('ferry-slip');
    const amber = drivenIn(build, { on: ['stage-2'], ambient: 'day' }).filter((d) => d.colour === 'amber');
    const cycles = new Map(amber.map((d) => [d.clockId, d.cycleMs]));
    const plain = amber.filter((d) => d.cycleMs === cycles.get(d.clockId));
    let differ = 0;
    for (const bearing of [90, 178]) {
      const light = new Map(
        allPoses(build).map((pose) => [pose.join(), bruteMostCd(build, plain, pose, bearing)]),
      );
      const most = Math.max(...light.values());
      for (const fast of vehicleOf(build.vehicle).parts)
        for (const stop of stopsWithShut(fast)) {
          const stopsOf: StopsOf = (part) => (part.id === fast.id ? [stop] : stopsWithShut(part));
          const stands = (pose: string): boolean =>
            fast.stops.every(({ id }) => pose.split(',').includes(id) === (id === stop?.id));
          const here = Math.max(...[...light].map(([pose, cd]) => (stands(pose) ? cd : 0)));
          if (here < most) differ++;
          const search = (limit: number) => poseAbove(build, plain, [bearing], limit, 0, { stopsOf });
          expect(search(here * (1 + 1e-9))).toEqual({ found: 'none' });
          if (here === 0) continue;
          const limit = here * (1 - 1e-9);
          const just = search(limit);
          if (just.found !== 'pose') throw new Error(`${fast.id} at ${bearing}°: ${just.found}`);
          const other = just.open.filter((id) => id !== stop?.id);
          expect(fast.stops.filter(({ id }) => other.includes(id))).toEqual([]);
          const there = allPoses(build).find(
            (pose) =>
              stands(pose.join()) &&
              other.every((id) => pose.includes(id)) &&
              pose.length === other.length + (stop === null ? 0 : 1),
          );
          expect(light.get(there?.join() ?? '')).toBeGreaterThan(limit);
        }
    }
    expect(differ).toBeGreaterThan(0);
  });

  test('one that is given up says so, with a bound that no pose is above', () => {
    const build = demoBuild('tunnel-pumper-3');
    const white = drivenIn(build, { on: ['stage-3'], ambient: 'day' }).filter((d) => d.colour === 'white');
    const given = poseAbove(build, white, [135], 100, 0, { allowance: 1 });
    if (given.found !== 'unknown') throw new Error(given.found);
    expect(given.bearing).toBe(135);
    expect(poseAbove(build, white, [135], given.mostCd, 0)).toEqual({ found: 'none' });
  });
});
