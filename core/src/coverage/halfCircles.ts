import { dot, sub, type Vec3 } from '../geometry/vec.ts';
import type { Obstacles } from './occlusion.ts';
import { PlaneCut, solidsOf, type HidingSolid } from './planeCut.ts';

const RAD = Math.PI / 180;
/** No vehicle reaches so far, m. */
const FAR_M = 200;
/** Allowed for, so that rounding never passes over a solid that a half circle touches, degrees. */
const SLACK_DEG = 1e-6;
/** Angles of the upright, but for rounding. */
const UPRIGHT = Math.PI / 2 - 1e-12;
const UP: Vec3 = [0, 0, 1];

/** The bearings that something may reach: its middle, and how far to either side, degrees; 180 all round. */
interface Bearings {
  readonly middleDeg: number;
  readonly halfDeg: number;
}

/**
 * What solids let pass of the light from a point, for all elevations of a bearing at once: a convex solid cuts the
 * vertical half plane of that bearing in a convex polygon, which hides one interval of elevations.
 */
export class HalfCircles {
  /** By whole degree of bearing: the solids that may be met from there to the next. */
  readonly #solids: readonly (readonly HidingSolid[])[];
  readonly #cut: PlaneCut;

  /** @param facing - where the point shines, when nothing is asked of what lies behind it */
  constructor(obstacles: readonly Obstacles[], origin: Vec3, facing: Vec3 | null = null) {
    const solids: HidingSolid[][] = Array.from({ length: 360 }, () => []);
    this.#cut = new PlaneCut(origin);
    for (const solid of obstacles.flatMap(solidsOf)) {
      if (facing !== null && dot(sub(solid.middle, origin), facing) < -solid.radiusM) continue;
      const { middleDeg, halfDeg } = bearingsOf(solid.corners, origin);
      const first = Math.floor(middleDeg - halfDeg);
      const last = Math.min(first + 359, Math.floor(middleDeg + halfDeg));
      for (let deg = first; deg <= last; deg++) solids[(deg + 720) % 360]?.push(solid);
    }
    this.#solids = solids;
  }

  /**
   * Multiplies shares by what passes.
   * @param bearingDeg - 0 to under 360
   * @param elevationsDeg - ascending, −90 to 90
   * @param share - by elevation; 0 is left alone
   */
  dim(bearingDeg: number, elevationsDeg: readonly number[], share: Float64Array): void {
    const ahead: Vec3 = [Math.cos(bearingDeg * RAD), -Math.sin(bearingDeg * RAD), 0];
    for (const solid of this.#solids[Math.floor(bearingDeg)] ?? []) {
      const hidden = this.#hidden(solid, ahead);
      if (hidden === null) continue;
      for (let row = firstAbove(elevationsDeg, hidden.lowDeg); row < share.length; row++) {
        if (!((elevationsDeg[row] ?? NaN) < hidden.highDeg)) break;
        share[row] = (share[row] ?? 0) * solid.transmission;
      }
    }
  }

  /** The interval of elevations that a solid takes up in a half plane; null where it does not meet it. */
  #hidden(solid: HidingSolid, ahead: Vec3): Interval | null {
    const count = this.#cut.of(solid, ahead, UP, FAR_M, FAR_M);
    if (count === 0) return null;
    const { s, t } = this.#cut;
    let low = Infinity;
    let high = -Infinity;
    for (let i = 0; i < count; i++) {
      // Steeper is higher: of all corners only two need their angle.
      const slope = (t[i] ?? 0) / (s[i] ?? 0);
      if (slope < low) low = slope;
      if (slope > high) high = slope;
    }
    const [lowest, highest] = [Math.atan(low), Math.atan(high)];
    // A polygon that reaches the upright through the point hides straight up or down, too.
    return {
      lowDeg: lowest <= -UPRIGHT ? -Infinity : lowest / RAD,
      highDeg: highest >= UPRIGHT ? Infinity : highest / RAD,
    };
  }
}

interface Interval {
  readonly lowDeg: number;
  readonly highDeg: number;
}

/** The first of ascending values that is above another; their number when none is. */
function firstAbove(ascending: readonly number[], value: number): number {
  let [low, high] = [0, ascending.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((ascending[middle] ?? NaN) > value) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The bearings within which all corners of a solid lie; all round where the point is above, below or within it. */
function bearingsOf(corners: readonly Vec3[], [ox, oy]: Vec3): Bearings {
  let [mx, my] = [0, 0];
  for (const [x, y] of corners) {
    mx += x - ox;
    my += y - oy;
  }
  const middleDeg = Math.atan2(-my, mx) / RAD;
  let [low, high] = [0, 0];
  for (const [x, y] of corners) {
    const deg = Math.atan2(oy - y, x - ox) / RAD;
    const off = ((deg - middleDeg + 540) % 360) - 180;
    low = Math.min(low, off);
    high = Math.max(high, off);
  }
  if (high - low >= 180) return { middleDeg: 0, halfDeg: 180 };
  return { middleDeg: middleDeg + (low + high) / 2, halfDeg: (high - low) / 2 + SLACK_DEG };
}
