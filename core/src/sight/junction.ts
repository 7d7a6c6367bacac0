import { z } from 'zod';
import { CLEAR_AIR_M, thresholdLx } from '../coverage/range.ts';
import type { Build } from '../design/schema.ts';
import { TrafficSide } from '../design/site.ts';
import { length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { State } from '../state/state.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { numberBetween } from '../words/numbers.ts';
import { AmbientLevel } from '../words/weather.ts';
import { LUMINANCE_AROUND } from './approach.ts';
import { LightInTime } from './lightInTime.ts';
import { lightsIn, type ModuleLight } from './source.ts';
import { outlineOf } from './stations.ts';

/**
 * A blind corner: the vehicle noses out along its lane, and the corner of a wall hides it from one who comes along the
 * crossing road. Distances are from the line along which that eye comes, and from the middle of the vehicle.
 */
export const Junction = z
  .strictObject({
    /** From which side of the vehicle the other comes. */
    from: TrafficSide,
    /** The wall ends so far before the line, and stands so far beside the vehicle's middle, m. */
    cornerBackM: numberBetween(0, 30),
    cornerAsideM: numberBetween(1, 30),
    /** How far the eye still is from where the two ways cross, and how high, m. */
    eyeAlongM: numberBetween(2, 200),
    eyeM: numberBetween(0.3, 4),
    around: AmbientLevel,
    /** So many times the light that is just visible. */
    noticing: numberBetween(1, 1000),
  })
  .refine(({ cornerAsideM, eyeAlongM }) => eyeAlongM > cornerAsideM, {
    path: ['eyeAlongM'],
    message: 'must be more than cornerAsideM: the eye is beyond the corner',
  });
export type Junction = z.infer<typeof Junction>;

export const USUAL_JUNCTION: Junction = {
  from: 'left',
  cornerBackM: 4,
  cornerAsideM: 5,
  eyeAlongM: 30,
  eyeM: 1.08,
  around: 'day',
  noticing: 1,
};

/** When light is first seen past the corner: how far the nose still is before the line, m; null when not before it is there. */
export interface FirstSeen {
  readonly placementId: string;
  readonly noseM: number | null;
  /** Of its lenses the one that the corner clears first, in body axes. */
  readonly lens: Vec3;
}

export interface JunctionResult {
  /** All lamps together. */
  readonly noseM: number | null;
  /** Lamp by lamp, the first seen first. */
  readonly byLamp: readonly FirstSeen[];
}

/** Positions of the nose are looked at so close to each other, and halved to a centimetre. */
const STEP_M = 0.25;
const BISECTED_M = 0.01;
/** Nobody asks about a nose that is farther off than this, m. */
const FARTHEST_M = 100;

const sideOf = ({ from }: Junction): 1 | -1 => (from === 'left' ? 1 : -1);

/**
 * The corner clears a lens when it is so far before the line: by similar triangles on the straight line from the lens past
 * the corner to the eye.
 * @param y - of the lens, to the left of the vehicle's middle, m
 */
export function clearM(junction: Junction, y: number): number {
  const { cornerBackM, cornerAsideM, eyeAlongM } = junction;
  const aside = y * sideOf(junction);
  return cornerBackM * Math.max(1, (eyeAlongM - aside) / (eyeAlongM - cornerAsideM));
}

/** Where the eye is in body axes while the nose is so far before the line. */
export const eyeAt = (junction: Junction, frontX: number, noseM: number): Vec3 => [
  frontX + noseM,
  junction.eyeAlongM * sideOf(junction),
  junction.eyeM,
];

/** When one who crosses first sees the vehicle, and each of its lamps, as it noses out past a corner. */
export function atJunction(build: Build, state: State, junction: Junction): JunctionResult {
  const ambient = junction.around === 'night' ? 'night' : 'day';
  const lights = lightsIn(build, { ...state, ambient });
  const { frontX } = outlineOf(vehicleOf(build.vehicle));
  const needLx = junction.noticing * thresholdLx(LUMINANCE_AROUND[junction.around]);
  const first = (mine: readonly ModuleLight[]): number | null => {
    const light = new LightInTime(mine);
    const clearNoseM = mine.map(({ centre: [x, y] }) => clearM(junction, y) - (frontX - x));
    const isSeen = (noseM: number): boolean => {
      const eye = eyeAt(junction, frontX, noseM);
      const per = Float64Array.from(mine, ({ centre, shareToward }, m) => {
        if (noseM > (clearNoseM[m] ?? -Infinity)) return 0;
        const to = sub(eye, centre);
        const r = length(to);
        return (shareToward(scale(to, 1 / r), r) * 0.05 ** (r / CLEAR_AIR_M)) / r ** 2;
      });
      return per.some((lx) => lx > 0) && light.effectiveLx(per, 'normal') >= needLx;
    };
    return firstFrom(Math.min(FARTHEST_M, Math.max(...clearNoseM)), isSeen);
  };
  const byLamp = build.placements.flatMap(({ id }): FirstSeen[] => {
    const mine = lights.filter(({ placementId }) => placementId === id);
    const clearNoseM = ({ centre: [x, y] }: ModuleLight): number => clearM(junction, y) + x;
    const [lens] = mine.toSorted((a, b) => clearNoseM(b) - clearNoseM(a));
    return lens === undefined ? [] : [{ placementId: id, noseM: first(mine), lens: lens.centre }];
  });
  const rank = ({ noseM }: FirstSeen): number => noseM ?? -1;
  return {
    noseM: lights.length === 0 ? null : first(lights),
    byLamp: byLamp.toSorted((a, b) => rank(b) - rank(a)),
  };
}

/** The farthest position of the nose from which on something is seen, coming nearer; null when it is not down to the line. */
function firstFrom(farM: number, isSeen: (noseM: number) => boolean): number | null {
  let before: number | null = null;
  for (let noseM = farM; ; noseM = Math.max(0, noseM - STEP_M)) {
    if (noseM < 0) return null;
    if (isSeen(noseM)) return before === null ? noseM : bisected(noseM, before, isSeen);
    if (noseM === 0) return null;
    before = noseM;
  }
}

function bisected(seenM: number, unseenM: number, isSeen: (noseM: number) => boolean): number {
  let [near, far] = [seenM, unseenM];
  while (far - near > BISECTED_M) {
    const middle = (near + far) / 2;
    if (isSeen(middle)) near = middle;
    else far = middle;
  }
  return near;
}
