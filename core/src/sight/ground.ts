import { dot, length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { LineSource, Source } from './source.ts';
import type { Outline } from './stations.ts';

const UP: Vec3 = [0, 0, 1];
const FORWARD: Vec3 = [1, 0, 0];

/**
 * Illuminance that lamps give a small plane, by the inverse square and cosine laws: E = Σ I cos ζ / r².
 * @param facing - unit normal of the plane; up is the ground
 * @returns lx
 */
export function planeLx(lamps: readonly Source[], point: Vec3, facing: Vec3 = UP): number {
  let sum = 0;
  for (const { centre, cdToward } of lamps) {
    const to = sub(point, centre);
    const r = length(to);
    if (r === 0) continue;
    const direction = scale(to, 1 / r);
    const cos = -dot(direction, facing);
    if (cos > 0) sum += (cdToward(direction, r) * cos) / r ** 2;
  }
  return sum;
}

/** A grid of illuminance on the ground, row by row from the rear right corner. */
export interface GroundGrid {
  readonly stepM: number;
  /** Of the first point, m: whole steps from the vehicle's origin. */
  readonly fromX: number;
  readonly fromY: number;
  /** Points along and across. */
  readonly columns: number;
  readonly rows: number;
  /** lx, by row (y) and column (x). */
  readonly lx: Float32Array;
}

export interface GroundOptions {
  readonly stepM: number;
  /** So far beyond the outline of the body, m. */
  readonly beyondM: number;
}

/** A lamp that could give no more than this there is passed over, lx. */
const NOTHING_LX = 1e-3;

/** Horizontal illuminance on the ground around a vehicle; between two rows it can be given up. */
export function* groundGrid(
  lamps: readonly (LineSource & { readonly mostCd: number })[],
  { rearX, frontX, rightY, leftY }: Outline,
  { stepM, beyondM }: GroundOptions,
): Generator<number, GroundGrid> {
  const first = (from: number): number => Math.ceil((from - beyondM) / stepM);
  const last = (to: number): number => Math.floor((to + beyondM) / stepM);
  const [x0, x1, y0, y1] = [first(rearX), last(frontX), first(rightY), last(leftY)];
  const columns = x1 - x0 + 1;
  const rows = y1 - y0 + 1;
  const lx = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const y = (y0 + row) * stepM;
    const sums = new Float64Array(columns);
    for (const { centre, cdOn, mostCd } of lamps) {
      const [cx, cy, cz] = centre;
      // Nearest to the lamp a row gets the most.
      if (!(cz > 0) || (mostCd * cz) / ((y - cy) ** 2 + cz ** 2) ** 1.5 < NOTHING_LX) continue;
      const cd = cdOn([0, y, 0], FORWARD);
      for (let column = 0; column < columns; column++) {
        const x = (x0 + column) * stepM;
        const square = (x - cx) ** 2 + (y - cy) ** 2 + cz ** 2;
        const r = Math.sqrt(square);
        const perCd = cz / (square * r);
        if (mostCd * perCd < NOTHING_LX) continue;
        sums[column] = (sums[column] ?? 0) + perCd * cd(x, [(x - cx) / r, (y - cy) / r, -cz / r], r);
      }
    }
    lx.set(sums, row * columns);
    yield row / rows;
  }
  return { stepM, fromX: x0 * stepM, fromY: y0 * stepM, columns, rows, lx };
}

/** A piece of ground beside the vehicle where people work. */
export interface WorkArea extends Outline {
  readonly id: string;
  readonly name: string;
}

/** A strip beside the body is so wide, m. */
const STRIP_M = 3;

/** The pieces of ground that are usually worked on. */
export const workAreasOf = ({ rearX, frontX, rightY, leftY }: Outline): WorkArea[] => [
  { id: 'left', name: 'Left side, 3 m', rearX, frontX, rightY: leftY, leftY: leftY + STRIP_M },
  { id: 'right', name: 'Right side, 3 m', rearX, frontX, rightY: rightY - STRIP_M, leftY: rightY },
  { id: 'rear', name: 'Behind the rear, 3 m', rearX: rearX - STRIP_M, frontX: rearX, rightY, leftY },
  { id: 'front', name: 'Before the front, 3 m', rearX: frontX, frontX: frontX + STRIP_M, rightY, leftY },
];

export interface AreaLight {
  readonly meanLx: number;
  readonly leastLx: number;
  /** Least against mean; 0 where it is dark. */
  readonly evenness: number;
  /** Share of the area above the limit. */
  readonly aboveShare: number;
}

/** The light on a piece of ground, by the points of the grid that lie in it. */
export function areaLight(grid: GroundGrid, area: Outline, limitLx: number): AreaLight {
  const values: number[] = [];
  for (let row = 0; row < grid.rows; row++) {
    const y = grid.fromY + row * grid.stepM;
    if (y < area.rightY || y > area.leftY) continue;
    for (let column = 0; column < grid.columns; column++) {
      const x = grid.fromX + column * grid.stepM;
      if (x >= area.rearX && x <= area.frontX) values.push(grid.lx[row * grid.columns + column] ?? 0);
    }
  }
  return lightOf(values, limitLx);
}

/** What some points get together, lx. */
export function lightOf(values: readonly number[], limitLx: number): AreaLight {
  if (values.length === 0) return { meanLx: 0, leastLx: 0, evenness: 0, aboveShare: 0 };
  const meanLx = values.reduce((a, b) => a + b, 0) / values.length;
  const leastLx = values.reduce((a, b) => Math.min(a, b), Infinity);
  return {
    meanLx,
    leastLx,
    evenness: meanLx === 0 ? 0 : leastLx / meanLx,
    aboveShare: values.filter((v) => v >= limitLx).length / values.length,
  };
}
