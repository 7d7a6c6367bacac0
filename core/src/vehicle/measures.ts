import { z } from 'zod';
import type { Vec3 } from '../geometry/vec.ts';

export const metres = z
  .number({ error: 'must be a number' })
  .min(-15, 'must be at least −15')
  .max(15, 'must be at most 15');
export const size = z
  .number({ error: 'must be a number' })
  .min(0.01, 'must be at least 0.01')
  .max(12, 'must be at most 12');
/** A point in body axes, m. */
export const Point = z.tuple([metres, metres, metres]);
export const share = z.number().min(0, 'must be at least 0').max(1, 'must be at most 1');
export const degrees = (most: number) =>
  z
    .number({ error: 'must be a number' })
    .min(-most, `must be at least −${most}`)
    .max(most, `must be at most ${most}`);

/** Nothing is thinner than this, m. */
export const LEAST_M = 0.002;
export const FLAT = 'must be at least 2 mm in each direction';

/** Two opposite corners of a box, body axes, m. */
export const BOX = { from: Point, to: Point };
export const hasRoom = ({ from, to }: { from: readonly number[]; to: readonly number[] }): boolean =>
  from.every((v, i) => Math.abs(v - (to[i] ?? v)) >= LEAST_M);

/** Ways something of one's own can look. */
export const FACINGS = ['front', 'right', 'rear', 'left', 'top', 'under'] as const;
export const VehicleFacing = z.enum(FACINGS, { error: `must be one of ${FACINGS.join(', ')}` });
export type VehicleFacing = z.infer<typeof VehicleFacing>;

/** Straight out of the body that way, body axes. */
export const OUTWARD: Readonly<Record<VehicleFacing, Vec3>> = {
  front: [1, 0, 0],
  rear: [-1, 0, 0],
  left: [0, 1, 0],
  right: [0, -1, 0],
  top: [0, 0, 1],
  under: [0, 0, -1],
};
