import type { Vehicle, View } from '@flarik/core/vehicle/types';
import { posedSolids, type OpenParts } from '@flarik/core/vehicle/vehicle';
import { project } from '@flarik/core/vehicle/picture/views';

/** Room between views and around the sheet, m. */
const GAP_M = 0.3;
const MARGIN_M = 0.12;
/** Room below a view for its title: at least so much, m, and so much of the sheet's width, as a wide sheet is drawn smaller. */
const TITLE_M = 0.24;
const TITLE_SHARE = 0.032;
/** Room around what the solids reach, for lamps that stand on them, m. */
const ROOM_M = 0.16;

export interface Frame {
  /** Where the view's own origin lies on the sheet, m from its top left corner. */
  readonly x: number;
  readonly y: number;
  /** The view's room on the sheet. */
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

export interface Arrangement {
  readonly width: number;
  readonly height: number;
  /** Room below a view for its title, m. */
  readonly titleM: number;
  readonly frames: Readonly<Record<View, Frame>>;
}

export const VIEWS: readonly View[] = ['left', 'rear', 'plan', 'front', 'right'];

export const viewName: Readonly<Record<View, string>> = {
  left: 'Left side',
  rear: 'Rear',
  plan: 'Plan',
  front: 'Front',
  right: 'Right side',
};

/** How far a view's picture reaches from the view's origin, m. */
interface Reach {
  readonly a0: number;
  readonly a1: number;
  readonly b0: number;
  readonly b1: number;
}

/** How far the vehicle reaches on a view, shut and in this pose; elevations stand on the ground. */
function reachOn(view: View, vehicle: Vehicle, open: OpenParts): Reach {
  const solids = open.size === 0 ? vehicle.solids : [...vehicle.solids, ...posedSolids(vehicle, open)];
  const points = solids.flatMap((s) => s.vertices.map((v) => project(view, v)));
  const as = points.map(([a]) => a);
  const bs = points.map(([, b]) => b);
  const half = view === 'front' || view === 'rear' ? vehicle.widthM / 2 : vehicle.lengthM / 2;
  const across = view === 'plan' ? vehicle.widthM / 2 : 0;
  return {
    a0: Math.min(-half, ...as) - ROOM_M / 2,
    a1: Math.max(half, ...as) + ROOM_M / 2,
    b0: view === 'plan' ? Math.min(-across, ...bs) - ROOM_M / 2 : 0,
    b1: view === 'plan' ? Math.max(across, ...bs) + ROOM_M / 2 : Math.max(vehicle.heightM, ...bs) + ROOM_M,
  };
}

/**
 * The unfolded vehicle: the plan in the middle with its front to the right, the left side above it and the
 * right side below, the rear on the one hand and the front on the other. Every elevation stands upright; what
 * is open has its room.
 */
export function arrange(vehicle: Vehicle, open: OpenParts): Arrangement {
  const reach = (view: View) => reachOn(view, vehicle, open);
  const [left, right, plan, front, rear] = [
    reach('left'),
    reach('right'),
    reach('plan'),
    reach('front'),
    reach('rear'),
  ];
  const wide = (r: Reach) => r.a1 - r.a0;
  const high = (r: Reach) => r.b1 - r.b0;
  const column = Math.max(wide(left), wide(plan), wide(right));
  const middleX = MARGIN_M + wide(rear) + GAP_M;
  const frontX = middleX + column + GAP_M;
  const width = frontX + wide(front) + MARGIN_M;
  const titleM = Math.max(TITLE_M, TITLE_SHARE * width);
  const planTop = MARGIN_M + high(left) + titleM;
  const row = Math.max(high(plan), high(front), high(rear));
  const rightTop = planTop + row + titleM;
  const frame = (r: Reach, x: number, top: number): Frame => ({
    x: x - r.a0,
    y: top + r.b1,
    left: x,
    top,
    width: wide(r),
    height: high(r),
  });
  const inRow = (r: Reach) => planTop + (row - high(r)) / 2;
  return {
    width,
    height: rightTop + high(right) + titleM,
    titleM,
    frames: {
      left: frame(left, middleX, MARGIN_M),
      plan: frame(plan, middleX, inRow(plan)),
      right: frame(right, middleX, rightTop),
      rear: frame(rear, MARGIN_M, inRow(rear)),
      front: frame(front, frontX, inRow(front)),
    },
  };
}
