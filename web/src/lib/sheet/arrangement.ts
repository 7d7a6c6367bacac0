import type { Vehicle, View } from '@flarik/core/vehicle/types';

/** Room between views and around the sheet, m. */
const GAP_M = 0.3;
const MARGIN_M = 0.12;
/** Room behind the plan for an open hatch, m. */
const HATCH_M = 0.75;
/** Room below a view for its title, m. */
const TITLE_M = 0.24;
/** Room above an elevation for what stands on the roof, m. */
const HEAD_M = 0.14;

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

/**
 * The unfolded vehicle: the plan in the middle with its front to the right, the left side above it and the
 * right side below, the rear on the one hand and the front on the other. Every elevation stands upright.
 */
export function arrange({ lengthM, widthM, heightM }: Vehicle): Arrangement {
  const wide = widthM + 0.5;
  const leftTop = MARGIN_M + HEAD_M;
  const planTop = leftTop + heightM + TITLE_M;
  const rightTop = planTop + wide - 0.1 + TITLE_M;
  const planLeft = MARGIN_M + wide + HATCH_M;
  const columns = [MARGIN_M, planLeft, planLeft + lengthM + GAP_M] as const;
  const middle = planTop + wide / 2;
  const side = (top: number): Frame => ({
    x: columns[1] + lengthM / 2,
    y: top + heightM,
    left: columns[1],
    top,
    width: lengthM,
    height: heightM,
  });
  const end = (left: number): Frame => ({
    x: left + wide / 2,
    y: middle + heightM / 2,
    left,
    top: middle - heightM / 2,
    width: wide,
    height: heightM,
  });
  return {
    width: columns[2] + wide + MARGIN_M,
    height: rightTop + heightM + TITLE_M,
    frames: {
      left: side(leftTop),
      plan: {
        x: columns[1] + lengthM / 2,
        y: middle,
        left: columns[1],
        top: planTop,
        width: lengthM,
        height: wide,
      },
      right: side(rightTop),
      rear: end(columns[0]),
      front: end(columns[2]),
    },
  };
}
