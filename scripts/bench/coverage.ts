import { outsideShares } from './outside.ts';
import { LampFields } from '@flarik/core/coverage/lampFields';
import { relativeIntensity } from '@flarik/core/fixture/distribution';
import { directionOf } from '@flarik/core/geometry/direction';
import { anglesInFrame } from '@flarik/core/geometry/frame';
import { transmissionAlong } from '@flarik/core/geometry/ray';
import { Lookup, lookupOf } from '@flarik/core/resolve/lookup';
import { placeModules } from '@flarik/core/resolve/place';
import { plainHousings } from '@flarik/core/test/reference/plainHousings';
import { posedSolids } from '@flarik/core/vehicle/vehicle';
import { timed, medianMs, build } from './kit.ts';

const SHUT: ReadonlySet<string> = new Set();

/** Every module at 360 bearings × 31 elevations with occlusion, against clipping every ray at every solid. */
export function coverageBench() {
  const lookup = lookupOf(build);
  const { vehicle } = lookup;
  const elevations = Array.from({ length: 31 }, (_, i) => i * 2 - 30);
  const fast = () => {
    const fields = new LampFields(new Lookup(build), build.placements);
    for (const p of build.placements) fields.prepare(p, [], elevations);
    return build.placements.map((p) => elevations.map((e) => fields.of(p, [], e)));
  };
  const fastMs = medianMs(3, fast);
  const solids = posedSolids(vehicle, SHUT);
  const behind = plainHousings(lookup, build.placements, SHUT);
  const slow = timed(() =>
    build.placements.map((p) =>
      elevations.map((e) =>
        placeModules(lookup, p, SHUT).map(({ module, centre, frame }) =>
          Float64Array.from({ length: 360 }, (_, b) => {
            const direction = directionOf(b, e);
            const { hDeg, vDeg } = anglesInFrame(frame, direction);
            if (behind(p.id, centre, direction)) return 0;
            return (
              relativeIntensity(module.distribution, hDeg, vDeg) *
              p.lensTransmission *
              transmissionAlong(solids, centre, direction)
            );
          }),
        ),
      ),
    ),
  );
  const found = fast();
  const apart = (other: readonly (readonly (readonly Float64Array[])[])[]): Float64Array[] =>
    found.flatMap((byElevation, p) =>
      byElevation.flatMap((modules, e) =>
        modules.map((m, i) => m.share.map((share, b) => Math.abs(share - (other[p]?.[e]?.[i]?.[b] ?? 0)))),
      ),
    );
  const most = (of: readonly Float64Array[]): number =>
    of.reduce((worst, values) => values.reduce((a, b) => Math.max(a, b), worst), 0);
  const outside = timed(() => outsideShares(build, elevations));
  const { rays, shares } = outside.result;
  const unlike = apart(shares).reduce((sum, values) => sum + values.filter((v) => v > 1e-9).length, 0);
  return {
    what: `all ${build.placements.flatMap((p) => p.modules).length} modules, body and housings, 360 × 31 directions, ${vehicle.solids.length} solids`,
    fastMs,
    bruteMs: slow.ms,
    timesFaster: slow.ms / fastMs,
    largestDifference: most(apart(slow.result)),
    outside: {
      by: 'three-mesh-bvh, everything shut',
      ms: outside.ms,
      rays,
      timesFaster: outside.ms / fastMs,
      raysUnlike: unlike,
    },
  };
}
