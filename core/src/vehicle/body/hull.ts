import type { Assembly } from '../types.ts';
import { bothSides, onSides, onView, type XYR } from '../picture/pen.ts';
import type { Stations } from './dimension.ts';

/** The flank's outline from the front of the roof over windscreen and bonnet to the foot of the front bumper. */
const bonnetedOutline = (s: Stations): XYR[] => [
  [s.roofFrontX - 0.45, s.roofZ, 0.5],
  [s.roofFrontX, s.railZ + 0.03, 0.3],
  [s.cowlX, s.beltZ + 0.005, 0.12],
  [Math.min(s.cowlX + 0.5, s.noseX - 0.4), s.beltZ - 0.015, 0.4],
  [s.noseX - 0.07, s.noseZ, 0.16],
  [s.noseX - 0.06, s.bumperTopZ - 0.02, 0.05],
  [s.noseX, s.bumperTopZ - 0.07, 0.06],
  [s.noseX, s.floorZ + 0.1, 0.08],
  [s.noseX - 0.2, s.floorZ, 0.08],
];

/** The flank's outline of an upright cab with its windscreen over the bumper. */
const flatOutline = (s: Stations): XYR[] => [
  [s.roofFrontX - 0.05, s.roofZ, 0.14],
  [s.roofFrontX + 0.06, s.railZ, 0.06],
  [s.cowlX + 0.01, s.beltZ, 0.1],
  [s.cowlX + 0.05, s.bumperTopZ + 0.02, 0.08],
  [s.cowlX + 0.04, s.floorZ, 0.1],
];

/**
 * The body as one skin: its flank from a rear outline (from the rear's foot up to the roof) over a front of the
 * named sort, and its plan.
 *
 * @param rear - stations and heights, the foot first
 * @param planRearX - where the skin ends seen from above
 */
export function hull(
  s: Stations,
  front: 'bonneted' | 'flat',
  rear: readonly XYR[],
  planRearX: number,
): Partial<Assembly> {
  const w = s.halfWidth;
  const outline = [...rear, ...(front === 'bonneted' ? bonnetedOutline(s) : flatOutline(s))];
  const planFront: XYR[] =
    front === 'bonneted'
      ? [
          [s.noseX - 0.42, w, 0.3],
          [s.noseX - 0.1, w - 0.2, 0.25],
          [s.noseX, w - 0.55, 0.3],
          [s.noseX, 0],
        ]
      : [
          [s.cowlX - 0.05, w, 0.15],
          [s.cowlX + 0.05, w - 0.25, 0.2],
          [s.cowlX + 0.07, 0],
        ];
  return {
    art: [
      ...onSides((b) => [b.fill('body', outline)]),
      ...onView('plan', (b) => [
        b.fill(
          'body',
          bothSides([[planRearX, 0], [planRearX, w - 0.12, 0.1], [planRearX + 0.12, w, 0.1], ...planFront]),
        ),
      ]),
    ],
  };
}
