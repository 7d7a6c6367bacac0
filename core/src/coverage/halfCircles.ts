import type { Vec3 } from '../geometry/vec.ts';
import { gapsAt, type Obstacles } from './occlusion.ts';

const RAD = Math.PI / 180;
/** No vehicle reaches so far, m. */
const FAR_M = 200;
/** Allowed for, so that rounding never passes over a solid that a half circle touches, degrees. */
const SLACK_DEG = 1e-6;
/** A half-space whose border lies so flat in a half plane is parallel to it. */
const PARALLEL = 1e-12;
/** Angles of the upright, but for rounding. */
const UPRIGHT = Math.PI / 2 - 1e-12;
/** The half plane before it is clipped. */
const WHOLE_S = [0, FAR_M, FAR_M, 0];
const WHOLE_T = [-FAR_M, -FAR_M, FAR_M, FAR_M];
/** Corners of a clipped half plane; each half-space adds one at most. */
const MOST_CORNERS = 512;

/** A solid as seen from a point. */
interface Seen {
  readonly transmission: number;
  readonly planes: Float64Array;
  /** Where its half-spaces begin and end, counted in half-spaces. */
  readonly from: number;
  readonly to: number;
  readonly gaps: Float64Array;
  /** Bearing of its middle, and how far to either side it may reach, degrees; 180 all round. */
  readonly middleDeg: number;
  readonly halfDeg: number;
}

/**
 * What solids let pass of the light from a point, for all elevations of a bearing at once: a convex solid cuts the
 * vertical half plane of that bearing in a convex polygon, which hides one interval of elevations.
 */
export class HalfCircles {
  readonly #solids: readonly Seen[];
  /** The polygon, and the one it is clipped to: s outward, t up, m from the point. */
  #s = new Float64Array(MOST_CORNERS);
  #t = new Float64Array(MOST_CORNERS);
  #nextS = new Float64Array(MOST_CORNERS);
  #nextT = new Float64Array(MOST_CORNERS);

  constructor(obstacles: readonly Obstacles[], origin: Vec3) {
    this.#solids = obstacles
      .flatMap((one) => solidsOf(one, origin))
      .toSorted((a, b) => a.transmission - b.transmission);
  }

  /**
   * Multiplies shares by what passes.
   * @param elevationsDeg - ascending, −90 to 90
   * @param share - by elevation; 0 is left alone
   */
  dim(bearingDeg: number, elevationsDeg: readonly number[], share: Float64Array): void {
    const hx = Math.cos(bearingDeg * RAD);
    const hy = -Math.sin(bearingDeg * RAD);
    for (const solid of this.#solids) {
      if (!reaches(solid, bearingDeg)) continue;
      const hidden = this.#cut(solid, hx, hy);
      if (hidden === null) continue;
      for (let row = 0; row < share.length; row++) {
        const deg = elevationsDeg[row] ?? NaN;
        if (deg > hidden.lowDeg && deg < hidden.highDeg) share[row] = (share[row] ?? 0) * solid.transmission;
      }
    }
  }

  /** The interval of elevations that a solid takes up in a half plane; null where it does not meet it. */
  #cut({ planes, from, to, gaps }: Seen, hx: number, hy: number): Interval | null {
    let count = 4;
    this.#s.set(WHOLE_S);
    this.#t.set(WHOLE_T);
    for (let p = from; p < to; p++) {
      const a = (planes[4 * p] ?? 0) * hx + (planes[4 * p + 1] ?? 0) * hy;
      const b = planes[4 * p + 2] ?? 0;
      const gap = gaps[p] ?? 0;
      if (Math.abs(a) < PARALLEL && Math.abs(b) < PARALLEL) {
        if (gap <= 0) return null;
        continue;
      }
      count = this.#clip(count, a, b, gap);
      if (count < 3) return null;
    }
    let low = Infinity;
    let high = -Infinity;
    for (let i = 0; i < count; i++) {
      const angle = Math.atan2(this.#t[i] ?? 0, this.#s[i] ?? 0);
      if (angle < low) low = angle;
      if (angle > high) high = angle;
    }
    // A polygon that reaches the upright through the point hides straight up or down, too.
    return {
      lowDeg: low <= -UPRIGHT ? -Infinity : low / RAD,
      highDeg: high >= UPRIGHT ? Infinity : high / RAD,
    };
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

interface Interval {
  readonly lowDeg: number;
  readonly highDeg: number;
}

function reaches({ middleDeg, halfDeg }: Seen, bearingDeg: number): boolean {
  const off = Math.abs(((bearingDeg - middleDeg + 540) % 360) - 180);
  return off <= halfDeg;
}

function solidsOf(
  { transmissions, planeStarts, planes, vertexStarts, vertices }: Obstacles,
  origin: Vec3,
): Seen[] {
  const gaps = gapsAt(planes, origin);
  return Array.from(transmissions, (transmission, i): Seen => {
    const [from, to] = [planeStarts[i] ?? 0, planeStarts[i + 1] ?? 0];
    return {
      transmission,
      planes,
      from,
      to,
      gaps,
      ...bearingsOf(vertices.subarray(3 * (vertexStarts[i] ?? 0), 3 * (vertexStarts[i + 1] ?? 0)), origin),
    };
  });
}

/** The bearings within which all corners of a solid lie; all round where the point is above, below or within it. */
function bearingsOf(corners: Float64Array, [ox, oy]: Vec3): Pick<Seen, 'middleDeg' | 'halfDeg'> {
  let [mx, my] = [0, 0];
  for (let v = 0; v < corners.length; v += 3) {
    mx += (corners[v] ?? 0) - ox;
    my += (corners[v + 1] ?? 0) - oy;
  }
  const middleDeg = Math.atan2(-my, mx) / RAD;
  let [low, high] = [0, 0];
  for (let v = 0; v < corners.length; v += 3) {
    const deg = Math.atan2(oy - (corners[v + 1] ?? 0), (corners[v] ?? 0) - ox) / RAD;
    const off = ((deg - middleDeg + 540) % 360) - 180;
    low = Math.min(low, off);
    high = Math.max(high, off);
  }
  if (high - low >= 180) return { middleDeg: 0, halfDeg: 180 };
  return { middleDeg: middleDeg + (low + high) / 2, halfDeg: (high - low) / 2 + SLACK_DEG };
}
