import { lookupOf } from '../../src/resolve/lookup.ts';
import { placeModules } from '../../src/resolve/place.ts';
import type { Build } from '../../src/design/schema.ts';
import type { State } from '../../src/state/state.ts';
import type { Ring } from '../../src/coverage/ring.ts';
import { relativeIntensity } from '../../src/fixture/distribution.ts';
import { directionOf } from '../../src/geometry/direction.ts';
import { anglesInFrame } from '../../src/geometry/frame.ts';
import { transmissionAlong } from '../../src/geometry/ray.ts';
import { drivenIn } from '../../src/state/driven.ts';
import { commonCycleMs } from '../../src/timing/timeline.ts';
import { VISUAL_TIME_S } from '../../src/timing/signal.ts';
import { posedSolids } from '../../src/vehicle/vehicle.ts';
import { levelsPerMs } from './perMs.ts';
import { plainHousings } from './plainHousings.ts';

/**
 * The ring without any short cut: every channel toward every bearing against every solid and every housing, light counted out
 * millisecond by millisecond. Slow, and simple enough to be believed; the fast path must agree to 1e-9.
 */
export function bruteRing(build: Build, state: State, elevationDeg: number): Ring {
  const lookup = lookupOf(build);
  const open = new Set(state.open);
  const solids = posedSolids(lookup.vehicle, open);
  const behind = plainHousings(lookup, build.placements, open);
  const channels = drivenIn(build, state).flatMap((drive) => {
    const p = build.placements.find((candidate) => candidate.id === drive.placementId);
    if (p === undefined) return [];
    const placed = placeModules(lookup, p, open).find((m) => m.module.id === drive.moduleId);
    return placed === undefined ? [] : [{ drive, placed, lens: p.lensTransmission }];
  });
  const effectiveCd = new Float64Array(360);
  const powerCdsPerMin = new Float64Array(360);
  for (let bearing = 0; bearing < 360; bearing++) {
    const direction = directionOf(bearing, elevationDeg);
    const seen = channels.map(({ drive, placed, lens }) => {
      const { hDeg, vDeg } = anglesInFrame(placed.frame, direction);
      const relative = relativeIntensity(placed.module.distribution, hDeg, vDeg);
      const passes = behind(drive.placementId, placed.centre, direction)
        ? 0
        : transmissionAlong(solids, placed.centre, direction);
      return { drive, cd: drive.peakCd * relative * lens * passes };
    });
    let mean = 0;
    for (const { drive, cd } of seen) {
      const litMs = levelsPerMs(drive).reduce((sum, level) => sum + level, 0);
      mean += (cd * litMs) / drive.cycleMs;
    }
    powerCdsPerMin[bearing] = mean * 60;
    const steadyCd = seen.filter((s) => s.drive.steady).reduce((sum, s) => sum + s.cd, 0);
    let best = mean;
    for (const clock of new Set(seen.map((s) => s.drive.clockId))) {
      const flashing = seen.filter((s) => s.drive.clockId === clock && !s.drive.steady && s.cd > 0);
      if (flashing.length > 0) best = Math.max(best, bruteEffectiveCd(samples(flashing, steadyCd)));
    }
    effectiveCd[bearing] = Math.max(best, steadyCd);
  }
  return { effectiveCd, powerCdsPerMin };
}

function samples(
  flashing: readonly { drive: Parameters<typeof levelsPerMs>[0]; cd: number }[],
  steadyCd: number,
): Float64Array {
  const cycle = commonCycleMs(flashing.map((s) => s.drive.cycleMs));
  return Float64Array.from({ length: cycle }, (_, ms) =>
    flashing.reduce(
      (sum, { drive, cd }) => sum + cd * (levelsPerMs(drive)[ms % drive.cycleMs] ?? 0),
      steadyCd,
    ),
  );
}

/** Effective intensity over all windows of at most a cycle that begin and end where the light changes. */
function bruteEffectiveCd(perMs: Float64Array): number {
  const cycle = perMs.length;
  const changes = [...perMs.keys()].filter((ms) => perMs[ms] !== perMs[(ms + cycle - 1) % cycle]);
  const energy = new Float64Array(2 * cycle + 1);
  for (let ms = 0; ms < 2 * cycle; ms++) energy[ms + 1] = (energy[ms] ?? 0) + (perMs[ms % cycle] ?? 0) / 1000;
  let best = 0;
  for (const from of changes) {
    for (const to of changes.flatMap((c) => [c, c + cycle]).filter((c) => c > from && c <= from + cycle)) {
      const e = (energy[to] ?? 0) - (energy[from] ?? 0);
      best = Math.max(best, e / (VISUAL_TIME_S + (to - from) / 1000));
    }
  }
  return best;
}
