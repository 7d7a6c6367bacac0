import { z } from 'zod';
import { convexPieces } from '../geometry/polygon.ts';
import { Id, Name } from '../words/names.ts';
import { numberBetween } from '../words/numbers.ts';

/** A build has no more approaches, work places or eyes of its own, of each. */
export const MOST_OWN = 40;

/** The side of the road that traffic keeps to; the driver sits on the other side of the vehicle. */
export const TRAFFIC_SIDES = ['right', 'left'] as const;
export const TrafficSide = z.enum(TRAFFIC_SIDES, { error: 'must be right or left' });
export type TrafficSide = z.infer<typeof TrafficSide>;

/** Where a plane faces: up as the ground does, or level to a side of the vehicle. */
export const FACINGS = ['up', 'front', 'rear', 'left', 'right'] as const;
export type Facing = (typeof FACINGS)[number];

/** Where something is in body axes: ahead, to the left and up from the ground, m. */
const WHERE = { xM: numberBetween(-60, 60), yM: numberBetween(-60, 60), zM: numberBetween(0, 30) };

/** A corner of a plane, from its middle: along the vehicle, or level where it faces front or rear; and across it, or upright, m. */
export const Corner = z.strictObject({ alongM: numberBetween(-40, 40), acrossM: numberBetween(-30, 30) });
export type Corner = z.infer<typeof Corner>;

/** What a work place looks like on its plane. */
export const WorkShape = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({
      kind: z.literal('rectangle'),
      /** Its size along the vehicle, or level where it faces front or rear, m; 0 both ways is a point. */
      alongM: numberBetween(0, 80),
      /** Its size across the vehicle, or upright where it does not face up, m. */
      acrossM: numberBetween(0, 60),
    }),
    z.strictObject({
      kind: z.literal('corners'),
      /** In turn, either way round. */
      corners: z
        .array(Corner)
        .min(3, 'must be at least 3 corners')
        .max(24, 'must be at most 24 corners')
        .refine(isFigure, 'must enclose an area, and its edges must not cross'),
    }),
  ],
  { error: "must be of kind 'rectangle' or 'corners'" },
);
export type WorkShape = z.infer<typeof WorkShape>;

function isFigure(corners: readonly Corner[]): boolean {
  try {
    return convexPieces(corners.map(({ alongM, acrossM }) => [alongM, acrossM])).length > 0;
  } catch (error) {
    if (error instanceof RangeError) return false;
    throw error;
  }
}

/** A plane on which somebody works: a pump panel, a cot, a bed, a desk; or a point at which a meter is held. */
export const WorkPlace = z.strictObject({
  id: Id,
  name: Name,
  /** Its middle. */
  ...WHERE,
  facing: z.enum(FACINGS, { error: 'must be up, front, rear, left or right' }),
  shape: WorkShape,
});
export type WorkPlace = z.infer<typeof WorkPlace>;

/** An eye of one's own near the vehicle, and where it looks. */
export const EyePlace = z.strictObject({
  id: Id,
  name: Name,
  ...WHERE,
  /** Clockwise from straight ahead of the vehicle, degrees. */
  lookDeg: numberBetween(0, 359.9),
  /** Up from level, degrees. */
  upDeg: numberBetween(-90, 90),
});
export type EyePlace = z.infer<typeof EyePlace>;

/** How much of the light on a surface of the vehicle, or on the road, comes back: paint, matt film, a wet road. */
export const Finish = z.strictObject({
  /** As it is called where it is lit. */
  surface: Name,
  percent: numberBetween(0, 95),
});
export type Finish = z.infer<typeof Finish>;
