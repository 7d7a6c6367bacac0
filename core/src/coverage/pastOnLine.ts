import type { Mesh } from '../geometry/mesh.ts';
import { cross, dot, length, scale, sub, unit, type Vec3 } from '../geometry/vec.ts';
import type { Obstacles } from './occlusion.ts';
import { PlaneCut, solidsOf, type HidingSolid } from './planeCut.ts';

/** Points on a line beyond this are not asked about, in lengths of `along`. */
const FARTHEST = 1e5;

/** Onward goes from so far before the beginning of a line, in lengths of `along`: so it holds the beginning itself. */
const BEFORE = 1e-3;

/** A lamp so near to a line stands on it, m. */
const ON_LINE_M = 1e-6;
const NONE: Vec3 = [0, 0, 0];

/**
 * The share of light that passes to a point of a straight line.
 * @param k - the point is `from` + k · `along`
 * @param direction - unit vector from the lamp to the point, which lies `farM` off
 */
export type PastOn = (k: number, direction: Vec3, farM: number) => number;

/**
 * What solids let pass of the light from a point to all points of a straight line at once: a convex solid cuts the plane
 * of lamp and line in a convex polygon, which hides one stretch of the line. Like `occluderAt` for each point by itself.
 */
export class PastLines {
  readonly #origin: Vec3;
  readonly #solids: readonly HidingSolid[];
  readonly #meshes: readonly Mesh[];
  readonly #cut: PlaneCut;

  constructor(obstacles: readonly Obstacles[], origin: Vec3) {
    this.#origin = origin;
    this.#cut = new PlaneCut(origin);
    this.#solids = obstacles.flatMap(solidsOf);
    this.#meshes = obstacles.flatMap(({ mesh }) => mesh ?? []);
  }

  /**
   * @param along - of any length but none
   * @param onward - nothing is asked of points before `from`
   */
  on(from: Vec3, along: Vec3, onward = false): PastOn {
    let hidden: readonly number[] | null = null;
    return (k, direction, farM) => {
      // Most lamps send nothing to most lines: what hides it is worked out for those that do.
      hidden ??= this.#hidden(from, along, onward);
      let share = 1;
      for (let i = 0; i < hidden.length; i += 3)
        if (k > (hidden[i + 1] ?? 0) && k < (hidden[i + 2] ?? 0)) {
          share *= hidden[i] ?? 0;
          if (share === 0) return 0;
        }
      return this.#meshes.some((mesh) => mesh.hides(this.#origin, direction, farM)) ? 0 : share;
    };
  }

  /** Stretches of a line that are hidden: what passes there, and from where to where, one after the other. */
  #hidden(from: Vec3, along: Vec3, onward: boolean): number[] {
    const ahead = sub(from, this.#origin);
    const [ax, ay, az] = unit(along);
    // All ways to points onward lie beyond the lamp, and beyond where the line begins, as far as that is before it.
    const beginsM = ahead[0] * ax + ahead[1] * ay + ahead[2] * az - BEFORE * length(along);
    const leastM = onward ? Math.min(0, beginsM) : -Infinity;
    // From the lamp straight toward the line.
    const toLine = sub(ahead, scale(along, dot(ahead, along) / dot(along, along)));
    const lineM = length(toLine);
    // A lamp on the line itself has no plane with it; whichever goes through both will do, and no solid is left out beforehand.
    const apart = lineM > ON_LINE_M;
    const [nx, ny, nz] = apart ? unit(cross(ahead, along)) : NONE;
    const [tx, ty, tz] = apart ? scale(toLine, 1 / lineM) : NONE;
    const hidden: number[] = [];
    const [ox, oy, oz] = this.#origin;
    for (const solid of this.#solids) {
      const { middle, radiusM } = solid;
      const x = middle[0] - ox;
      const y = middle[1] - oy;
      const z = middle[2] - oz;
      if (Math.abs(x * nx + y * ny + z * nz) > radiusM) continue;
      if (x * ax + y * ay + z * az + radiusM < leastM) continue;
      const toward = x * tx + y * ty + z * tz;
      if (toward < -radiusM || toward > lineM + radiusM) continue;
      const count = this.#cut.of(solid, ahead, along, 1, FARTHEST, onward ? -BEFORE : -FARTHEST);
      if (count > 0) hidden.push(solid.transmission, ...stretchOf(this.#cut, count));
    }
    return hidden;
  }
}

/** The stretch of a line that a polygon hides: a corner that is s of the way to it lies before the point t / s. */
function stretchOf({ s, t }: PlaneCut, count: number): readonly [low: number, high: number] {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0; i < count; i++) {
    // Beside the lamp itself it hides the line to its very end.
    const k = (t[i] ?? 0) / (s[i] ?? 0);
    if (k < low) low = k;
    if (k > high) high = k;
  }
  return [low, high];
}
