import { thresholdLx } from '../coverage/range.ts';
import type { Approach } from '../design/approach.ts';
import type { Build } from '../design/schema.ts';
import { directionOf } from '../geometry/direction.ts';
import { transmissionAlong } from '../geometry/ray.ts';
import { add, dot, length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { OUTWARD } from '../vehicle/measures.ts';
import type { Reflector } from '../vehicle/spec.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import type { Colour } from '../words/colour.ts';
import { FROM_M, LUMINANCE_AROUND, OPTICAL_RANGE_M, TO_M, UPPER_M } from './approach.ts';
import { solidsIn } from './stations.ts';
import { overCrestM } from './stopping.ts';

/** Head lamps of a car stand so high, m. */
const HEAD_LAMPS_M = 0.65;
/** Light of two dipped head lamps together toward what stands about their height: an assumption, cd. */
export const HEAD_LAMPS_CD = 1000;
/** Sheeting is measured up to this angle between its normal and the light; what lies beyond counts as nothing, degrees. */
const MEASURED_DEG = 30;
/** Sheeting lies so far before the surface that carries it, m. */
const BEFORE_M = 0.02;
const STEP_SHARE = 0.01;
const BISECTED_M = 0.1;

/** The lamp colour that comes nearest to one of sheeting. */
const SEEN_AS: Readonly<Record<Reflector['colour'], Colour>> = {
  red: 'red',
  yellow: 'amber',
  orange: 'amber',
  white: 'white',
  blue: 'blue',
  green: 'green',
};

/**
 * What reflective areas send back to whoever comes nearer, all lamps off: I = R_A · E · A, with the light of the other's own
 * head lamps, which the air dims on the way there and on the way back.
 * @param headLampsCd - what these send toward the vehicle together, cd
 * @returns lx at the eye
 */
export function reflectedLx(
  build: Build,
  open: readonly string[],
  approach: Approach,
  distanceM: number,
  headLampsCd = HEAD_LAMPS_CD,
): number {
  const solids = solidsIn(vehicleOf(build.vehicle), open);
  const [x, y] = scale(directionOf(approach.bearingDeg, 0), distanceM);
  const lamps: Vec3 = [x, y, HEAD_LAMPS_M];
  const eye: Vec3 = [x, y, approach.eyeM];
  const passes = (r: number): number => 0.05 ** (r / OPTICAL_RANGE_M[approach.weather]);
  return counted(build, approach, distanceM).reduce((sum, area) => {
    const at = add(area.centre, scale(OUTWARD[area.face], BEFORE_M));
    const in_ = sub(lamps, at);
    const r = length(in_);
    const toLamps = scale(in_, 1 / r);
    if (dot(toLamps, OUTWARD[area.face]) < Math.cos((MEASURED_DEG * Math.PI) / 180)) return sum;
    const out = sub(eye, at);
    const back = length(out);
    const past = transmissionAlong(solids, at, toLamps) * transmissionAlong(solids, at, scale(out, 1 / back));
    const lx = (headLampsCd * passes(r)) / r ** 2;
    const cd = area.cdPerLxM2 * lx * area.widthM * area.heightM * past;
    return sum + (cd * passes(back)) / back ** 2;
  }, 0);
}

/** The areas that an approach asks about, as far as no crest hides them from so far. */
function counted(
  { vehicle }: Build,
  { colour, level, crest, eyeM }: Approach,
  distanceM: number,
): readonly Reflector[] {
  return vehicle.reflectors.filter(
    ({ colour: sheeting, centre: [, , z] }) =>
      (colour === null || SEEN_AS[sheeting] === colour) &&
      (level === 'any' || z > UPPER_M === (level === 'upper')) &&
      (crest === null ||
        distanceM <= overCrestM(crest.lengthM, crest.changePercent, Math.min(eyeM, HEAD_LAMPS_M), z)),
  );
}

/**
 * From how far the reflective areas alone are seen, all lamps off, coming nearer; 0 when they are not at the end of the way, m.
 * By day head lamps light nothing that is seen: asked at dusk and at night.
 */
export function reflectiveFromM(
  build: Build,
  open: readonly string[],
  approach: Approach,
  headLampsCd = HEAD_LAMPS_CD,
): number {
  const needLx = approach.noticing * thresholdLx(LUMINANCE_AROUND[approach.around]);
  const isSeen = (m: number): boolean => reflectedLx(build, open, approach, m, headLampsCd) >= needLx;
  let near = TO_M;
  if (!isSeen(near)) return 0;
  while (near < FROM_M) {
    const next = Math.min(FROM_M, near + Math.max(1, Math.floor(near * STEP_SHARE)));
    if (isSeen(next)) {
      near = next;
      continue;
    }
    let far = next;
    while (far - near > BISECTED_M) {
      const middle = (near + far) / 2;
      if (isSeen(middle)) near = middle;
      else far = middle;
    }
    return near;
  }
  return FROM_M;
}
