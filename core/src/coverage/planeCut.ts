import { ballAround, type Ball } from '../geometry/ball.ts';
import { SKIN_M } from '../geometry/ray.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { Obstacles } from './occlusion.ts';

/** A half-space whose border lies so flat in a plane is parallel to it. */
const PARALLEL = 1e-12;
/** Corners of a clipped plane; each half-space adds one at most. */
const MOST_CORNERS = 512;

/** A solid that hides light. */
export interface HidingSolid extends Ball {
  readonly transmission: number;
  /** Per half-space: normal x, y, z and distance. */
  readonly planes: Float64Array;
  readonly corners: readonly Vec3[];
}

/** So that rounding never leaves a corner outside of its ball, m. */
const SLACK_M = 1e-6;

const known = new WeakMap<Obstacles, readonly HidingSolid[]>();

/** The solids of some obstacles one by one; worked out once for all lamps. */
export function solidsOf(obstacles: Obstacles): readonly HidingSolid[] {
  const before = known.get(obstacles);
  if (before !== undefined) return before;
  const { transmissions, planeStarts, planes, vertexStarts, vertices } = obstacles;
  const made = Array.from(transmissions, (transmission, i): HidingSolid => {
    const corners: Vec3[] = [];
    for (let v = 3 * (vertexStarts[i] ?? 0); v < 3 * (vertexStarts[i + 1] ?? 0); v += 3)
      corners.push([vertices[v] ?? 0, vertices[v + 1] ?? 0, vertices[v + 2] ?? 0]);
    const { middle, radiusM } = ballAround(corners);
    return {
      transmission,
      planes: planes.subarray(4 * (planeStarts[i] ?? 0), 4 * (planeStarts[i + 1] ?? 0)),
      corners,
      middle,
      radiusM: radiusM + SLACK_M,
    };
  });
  known.set(obstacles, made);
  return made;
}

/** Room for the corners of a polygon, and of the next: one for all, as each cut is read before another is made. */
let cornerS = new Float64Array(MOST_CORNERS);
let cornerT = new Float64Array(MOST_CORNERS);
let nextS = new Float64Array(MOST_CORNERS);
let nextT = new Float64Array(MOST_CORNERS);
/** How far each corner lies outside of a half-space. */
const out = new Float64Array(MOST_CORNERS);

/**
 * Cuts of convex solids with a plane through the point that they are seen from: a point of the plane is
 * s · ahead + t · across away from it. The corners are good until the next cut, whosever it is.
 */
export class PlaneCut {
  readonly #from: Vec3;
  readonly #gaps = new Map<HidingSolid, Float64Array>();

  /** @param from - the point that all planes go through */
  constructor(from: Vec3) {
    this.#from = from;
  }

  /** Coordinates ahead of the corners that the last cut left. */
  get s(): Float64Array {
    return cornerS;
  }

  /** Coordinates across. */
  get t(): Float64Array {
    return cornerT;
  }

  /**
   * The convex polygon in which a solid cuts the plane, as far as 0 ≤ s ≤ mostS and leastT ≤ t ≤ mostT.
   * @returns how many corners it has; 0 where they do not meet
   */
  of(solid: HidingSolid, ahead: Vec3, across: Vec3, mostS: number, mostT: number, leastT = -mostT): number {
    const { planes } = solid;
    const gaps = this.#gapsOf(solid);
    const [aheadX, aheadY, aheadZ] = ahead;
    const [acrossX, acrossY, acrossZ] = across;
    cornerS[0] = cornerS[3] = 0;
    cornerS[1] = cornerS[2] = mostS;
    cornerT[0] = cornerT[1] = leastT;
    cornerT[2] = cornerT[3] = mostT;
    let count = 4;
    for (let p = 0; p < gaps.length; p++) {
      const x = planes[4 * p] ?? 0;
      const y = planes[4 * p + 1] ?? 0;
      const z = planes[4 * p + 2] ?? 0;
      const a = x * aheadX + y * aheadY + z * aheadZ;
      const b = x * acrossX + y * acrossY + z * acrossZ;
      const gap = gaps[p] ?? 0;
      if (Math.abs(a) < PARALLEL && Math.abs(b) < PARALLEL) {
        if (gap <= 0) return 0;
        continue;
      }
      count = clip(count, a, b, gap);
      if (count < 3) return 0;
    }
    return count;
  }

  /** How far the point lies below the skin of each half-space, m. */
  #gapsOf(solid: HidingSolid): Float64Array {
    const known = this.#gaps.get(solid);
    if (known !== undefined) return known;
    const { planes } = solid;
    const [x, y, z] = this.#from;
    const gaps = new Float64Array(planes.length / 4);
    for (let p = 0; p < gaps.length; p++) {
      const along = (planes[4 * p] ?? 0) * x + (planes[4 * p + 1] ?? 0) * y + (planes[4 * p + 2] ?? 0) * z;
      gaps[p] = (planes[4 * p + 3] ?? 0) - SKIN_M - along;
    }
    this.#gaps.set(solid, gaps);
    return gaps;
  }
}

/** Keeps what of the polygon lies in a s + b t ≤ gap (Sutherland and Hodgman 1974). @returns its corners */
function clip(count: number, a: number, b: number, gap: number): number {
  let outside = 0;
  for (let i = 0; i < count; i++) {
    const by = a * (cornerS[i] ?? 0) + b * (cornerT[i] ?? 0) - gap;
    out[i] = by;
    if (by > 0) outside += 1;
  }
  // Most half-spaces of a solid cut nothing off what the others left.
  if (outside === 0) return count;
  if (outside === count) return 0;
  let kept = 0;
  let beforeS = cornerS[count - 1] ?? 0;
  let beforeT = cornerT[count - 1] ?? 0;
  let beforeOut = out[count - 1] ?? 0;
  for (let i = 0; i < count; i++) {
    const nowS = cornerS[i] ?? 0;
    const nowT = cornerT[i] ?? 0;
    const nowOut = out[i] ?? 0;
    if (nowOut <= 0 !== beforeOut <= 0) {
      const k = beforeOut / (beforeOut - nowOut);
      nextS[kept] = beforeS + k * (nowS - beforeS);
      nextT[kept] = beforeT + k * (nowT - beforeT);
      kept += 1;
    }
    if (nowOut <= 0) {
      nextS[kept] = nowS;
      nextT[kept] = nowT;
      kept += 1;
    }
    beforeS = nowS;
    beforeT = nowT;
    beforeOut = nowOut;
  }
  [cornerS, cornerT, nextS, nextT] = [nextS, nextT, cornerS, cornerT];
  return kept;
}
