import { cornersIn } from '../design/shapeEdits.ts';
import type { Facing, WorkPlace } from '../design/site.ts';
import { convexPieces, isWithin, type Point2 } from '../geometry/polygon.ts';
import { add, combine, scale, type Vec3 } from '../geometry/vec.ts';
import { planeLx } from './ground.ts';
import type { ModuleSight, Source } from './source.ts';
import type { Outline } from './stations.ts';
import type { Surfaces } from './surfaces.ts';

/** Where a work place is and what it looks like, whatever it is called. */
export type WorkPlane = Omit<WorkPlace, 'id' | 'name'>;

/** From one point of a work place to the next no more than this, but for large ones, m. */
const STEP_M = 0.25;
/** Points nearer to each other than this are one, m. */
const SAME_M = 1e-6;
/** What lies on a surface is asked about so far before it, m. */
const BEFORE_M = 1e-3;
/** No more points than this each way. */
const MOST_POINTS = 41;

/** Which way a plane faces, and the two ways it extends. */
const AXES: Readonly<Record<Facing, { readonly normal: Vec3; readonly along: Vec3; readonly across: Vec3 }>> =
  {
    up: { normal: [0, 0, 1], along: [1, 0, 0], across: [0, 1, 0] },
    front: { normal: [1, 0, 0], along: [0, 1, 0], across: [0, 0, 1] },
    rear: { normal: [-1, 0, 0], along: [0, 1, 0], across: [0, 0, 1] },
    left: { normal: [0, 1, 0], along: [1, 0, 0], across: [0, 0, 1] },
    right: { normal: [0, -1, 0], along: [1, 0, 0], across: [0, 0, 1] },
  };

/** Offsets from the middle, both edges among them; the middle alone for a point. */
function offsets(sizeM: number): number[] {
  if (sizeM === 0) return [0];
  const count = Math.min(MOST_POINTS, Math.ceil(sizeM / STEP_M) + 1);
  return Array.from({ length: count }, (_, i) => (i / (count - 1) - 0.5) * sizeM);
}

/** A point of the plane, so far from its middle, body axes, m. */
function pointOf({ xM, yM, zM, facing }: WorkPlane, a: number, c: number): Vec3 {
  const { along, across } = AXES[facing];
  return [
    xM + along[0] * a + across[0] * c,
    yM + along[1] * a + across[1] * c,
    zM + along[2] * a + across[2] * c,
  ];
}

/** The corners of a work place on its plane, in turn, from its middle: along and across, m. */
const cornersOn = ({ shape }: WorkPlane): Point2[] =>
  cornersIn(shape).map(({ alongM, acrossM }) => [alongM, acrossM]);

/** The corners of a work place, in turn, body axes, m. */
export const cornersOf = (place: WorkPlace): Vec3[] => cornersOn(place).map(([a, c]) => pointOf(place, a, c));

/** How far a work place extends on its plane, m. */
export function extentOf(place: WorkPlane): { readonly alongM: number; readonly acrossM: number } {
  const corners = cornersOn(place);
  const spread = (of: readonly number[]): number => Math.max(...of) - Math.min(...of);
  return { alongM: spread(corners.map(([a]) => a)), acrossM: spread(corners.map(([, c]) => c)) };
}

/** Where a work place is looked at, from its middle: along and across, m. Its edges and corners are among them. */
function pointsOn(place: WorkPlane): Point2[] {
  const { shape } = place;
  if (shape.kind === 'rectangle')
    return offsets(shape.alongM).flatMap((a) => offsets(shape.acrossM).map((c): Point2 => [a, c]));
  const corners = cornersOn(place);
  const pieces = convexPieces(corners);
  const { alongM, acrossM } = extentOf(place);
  const midA = Math.min(...corners.map(([a]) => a)) + alongM / 2;
  const midC = Math.min(...corners.map(([, c]) => c)) + acrossM / 2;
  const inside = offsets(alongM).flatMap((a) =>
    offsets(acrossM)
      .map((c): Point2 => [midA + a, midC + c])
      .filter((point) => pieces.some((piece) => isWithin(piece, point))),
  );
  const isNew = ([a, c]: Point2): boolean => !inside.some(([x, y]) => Math.hypot(x - a, y - c) < SAME_M);
  return [...inside, ...corners.filter(isNew)];
}

/** The light on a plane where somebody works, point by point, lx; body and open parts throw their shadows on it. */
export function workPlaceLx(lamps: readonly Source[], place: WorkPlace): number[] {
  const { normal } = AXES[place.facing];
  return pointsOn(place).map(([a, c]) => planeLx(lamps, pointOf(place, a, c), normal));
}

/** What one lamp gives a place where people work. */
export interface LampLight {
  readonly placementId: string;
  readonly meanLx: number;
  /** Where the place is darkest with all lamps together. */
  readonly atDarkestLx: number;
}

/** Which lamps light a place, near ones and far ones, by what each gives it as a mean; the most first. */
export function lampsLighting(
  lamps: readonly (Source & Pick<ModuleSight, 'placementId'>)[],
  place: WorkPlane,
): LampLight[] {
  const { normal } = AXES[place.facing];
  const points = pointsOn(place).map(([a, c]) => pointOf(place, a, c));
  const lit = [...new Set(lamps.map(({ placementId }) => placementId))].map((placementId) => {
    const own = lamps.filter((lamp) => lamp.placementId === placementId);
    return { placementId, lx: points.map((point) => planeLx(own, point, normal)) };
  });
  const allLx = points.map((_, i) => lit.reduce((sum, { lx }) => sum + (lx[i] ?? 0), 0));
  const darkest = allLx.indexOf(Math.min(...allLx));
  return lit
    .map(({ placementId, lx }) => ({
      placementId,
      meanLx: lx.reduce((sum, v) => sum + v, 0) / lx.length,
      atDarkestLx: lx[darkest] ?? 0,
    }))
    .filter(({ meanLx }) => meanLx > 0)
    .toSorted((a, b) => b.meanLx - a.meanLx);
}

/** A piece of ground as a work place. */
export const placeOf = ({ rearX, frontX, rightY, leftY }: Outline): WorkPlane => ({
  xM: (rearX + frontX) / 2,
  yM: (rightY + leftY) / 2,
  zM: 0,
  facing: 'up',
  shape: { kind: 'rectangle', alongM: frontX - rearX, acrossM: leftY - rightY },
});

/** Directions in which a point looks for what is thrown back to it. */
const LOOKS = 128;
/** A work place is asked at no more points than this for what is thrown back: that changes little from one to the next. */
const MOST_ASKED = 25;
/** The golden angle, by which looks go round. */
const GOLDEN = Math.PI * (3 - Math.sqrt(5));

/** So many of a list, spread over it by the golden ratio, so that they fall in no line of a grid. */
function spread<T>(all: readonly T[], most: number): readonly T[] {
  if (all.length <= most) return all;
  const turn = (i: number): number => (i * (Math.sqrt(5) - 1)) / 2 - Math.floor((i * (Math.sqrt(5) - 1)) / 2);
  const places = new Set(Array.from({ length: most }, (_, i) => Math.floor(turn(i) * all.length)));
  return all.filter((_, i) => places.has(i));
}

/**
 * What walls, ceilings, the ground and the body throw back to a plane where somebody works, by one bounce, as a mean over it:
 * E = π/N Σ L over N looks, spread by the cosine to its normal, L = ρ E/π of what each meets first.
 * @returns lx; light that is thrown back more than once is left out
 */
export function interreflectedLx(surfaces: Surfaces, lamps: readonly Source[], place: WorkPlace): number {
  const { normal, along, across } = AXES[place.facing];
  const asked = spread(pointsOn(place), MOST_ASKED);
  const lit = asked.map(([a, c]) => {
    const point = add(pointOf(place, a, c), scale(normal, BEFORE_M));
    let luminance = 0;
    for (let i = 0; i < LOOKS; i++) {
      const sin = Math.sqrt((i + 0.5) / LOOKS);
      const view = combine(
        [normal, Math.sqrt(1 - sin ** 2)],
        [along, sin * Math.cos(i * GOLDEN)],
        [across, sin * Math.sin(i * GOLDEN)],
      );
      const met = surfaces.first(point, view);
      if (met !== null) luminance += met.perLux * planeLx(lamps, met.at, met.facing);
    }
    return (Math.PI * luminance) / LOOKS;
  });
  return lit.reduce((sum, lx) => sum + lx, 0) / lit.length;
}

/**
 * Where along a work place it is brighter than a limit, somewhere across it: first and last from its end nearest to the
 * vehicle; null where nowhere. A head-lamp reaches so far down a strip of road.
 * @param lx - as `workPlaceLx` gives it
 */
export function stretchAbove(
  place: WorkPlace,
  lx: readonly number[],
  limitLx: number,
): { readonly fromM: number; readonly toM: number } | null {
  const { along } = AXES[place.facing];
  const ahead = along[0] * place.xM + along[1] * place.yM >= 0;
  const points = pointsOn(place).map(([a]) => (ahead ? a : -a));
  const near = Math.min(...points);
  const bright = points.filter((_, i) => (lx[i] ?? 0) > limitLx).map((a) => a - near);
  return bright.length === 0 ? null : { fromM: Math.min(...bright), toM: Math.max(...bright) };
}

/** A strip of road and a wall that lamps are held against, m. */
const ROAD_M = { long: 80, wide: 5 };
const WALL_M = { off: 25, long: 10, high: 3 };

/** Work places that are often added, by the outline of the body; where they are is put right on the vehicle itself. */
export function usualWorkPlaces({ rearX, frontX, rightY, leftY }: Outline): readonly Omit<WorkPlace, 'id'>[] {
  const middleX = (rearX + frontX) / 2;
  const round = (m: number): number => Math.round(m * 100) / 100;
  return [
    {
      name: 'Point on the ground',
      xM: round(rearX - 2),
      yM: 0,
      zM: 0,
      facing: 'up',
      shape: { kind: 'rectangle', alongM: 0, acrossM: 0 },
    },
    {
      name: 'Panel at the left side',
      xM: round(middleX),
      yM: round(leftY),
      zM: 1.2,
      facing: 'left',
      shape: { kind: 'rectangle', alongM: 1.2, acrossM: 0.8 },
    },
    {
      name: 'Under the bonnet',
      xM: round(frontX - 0.8),
      yM: 0,
      zM: 1,
      facing: 'up',
      shape: { kind: 'rectangle', alongM: 0.8, acrossM: 1.2 },
    },
    {
      name: 'Bed or table inside',
      xM: round(rearX + 1.2),
      yM: 0,
      zM: 0.9,
      facing: 'up',
      shape: { kind: 'rectangle', alongM: 1.8, acrossM: 0.6 },
    },
    {
      name: `Road ahead, ${ROAD_M.wide} × ${ROAD_M.long} m`,
      xM: round(frontX + ROAD_M.long / 2),
      yM: 0,
      zM: 0,
      facing: 'up',
      shape: { kind: 'rectangle', alongM: ROAD_M.long, acrossM: ROAD_M.wide },
    },
    {
      name: `Wall ${WALL_M.off} m to the right`,
      xM: round(middleX),
      yM: round(rightY - WALL_M.off),
      zM: WALL_M.high / 2,
      facing: 'left',
      shape: { kind: 'rectangle', alongM: WALL_M.long, acrossM: WALL_M.high },
    },
  ];
}
