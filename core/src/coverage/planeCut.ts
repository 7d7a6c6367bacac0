import { ballAround, type Ball } from '../geometry/ball.ts';
import { SKIN_M } from '../geometry/ray.ts';
import { dot, type Vec3 } from '../geometry/vec.ts';
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
const S = new Float64Array(MOST_CORNERS);
const T = new Float64Array(MOST_CORNERS);
const NEXT_S = new Float64Array(MOST_CORNERS);
const NEXT_T = new Float64Array(MOST_CORNERS);

/**
 * Cuts of convex solids with a plane through the point that they are seen from: a point of the plane is
 * s · ahead + t · across away from it. The corners are good until the next cut, whosever it is.
 */
export class PlaneCut {
  readonly #from: Vec3;
  #s = S;
  #t = T;
  #nextS = NEXT_S;
  #nextT = NEXT_T;

  /** @param from - the point that all planes go through */
  constructor(from: Vec3) {
    this.#from = from;
  }

  /** Coordinates ahead of the corners that the last cut left. */
  get s(): Float64Array {
    return this.#s;
  }

  /** Coordinates across. */
  get t(): Float64Array {
    return this.#t;
  }

  /**
   * The convex polygon in which a solid cuts the plane, as far as 0 ≤ s ≤ mostS and leastT ≤ t ≤ mostT.
   * @returns how many corners it has; 0 where they do not meet
   */
  of(
    { planes }: HidingSolid,
    ahead: Vec3,
    across: Vec3,
    mostS: number,
    mostT: number,
    leastT = -mostT,
  ): number {
    let count = 4;
    this.#s.set([0, mostS, mostS, 0]);
    this.#t.set([leastT, leastT, mostT, mostT]);
    for (let p = 0; p < planes.length; p += 4) {
      const normal: Vec3 = [planes[p] ?? 0, planes[p + 1] ?? 0, planes[p + 2] ?? 0];
      const a = dot(normal, ahead);
      const b = dot(normal, across);
      const gap = (planes[p + 3] ?? 0) - SKIN_M - dot(normal, this.#from);
      if (Math.abs(a) < PARALLEL && Math.abs(b) < PARALLEL) {
        if (gap <= 0) return 0;
        continue;
      }
      count = this.#clip(count, a, b, gap);
      if (count < 3) return 0;
    }
    return count;
  }

  /** Keeps what of the polygon lies in a s + b t ≤ gap (Sutherland and Hodgman 1974). @returns its corners */
  #clip(count: number, a: number, b: number, gap: number): number {
    const [s, t, nextS, nextT] = [this.#s, this.#t, this.#nextS, this.#nextT];
    let kept = 0;
    let beforeS = s[count - 1] ?? 0;
    let beforeT = t[count - 1] ?? 0;
    let beforeOut = a * beforeS + b * beforeT - gap;
    for (let i = 0; i < count; i++) {
      const nowS = s[i] ?? 0;
      const nowT = t[i] ?? 0;
      const nowOut = a * nowS + b * nowT - gap;
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
    [this.#s, this.#t, this.#nextS, this.#nextT] = [nextS, nextT, s, t];
    return kept;
  }
}
