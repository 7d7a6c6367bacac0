import { add, length, scale, sub, type Vec3 } from './vec.ts';

/** A ball around a solid, for a first look. */
export interface Ball {
  readonly middle: Vec3;
  readonly radiusM: number;
}

export function ballAround(corners: readonly Vec3[]): Ball {
  const middle = scale(corners.reduce(add, [0, 0, 0]), 1 / corners.length);
  return { middle, radiusM: Math.max(...corners.map((corner) => length(sub(corner, middle)))) };
}
