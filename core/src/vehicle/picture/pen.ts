import type { ArtShape, View } from '../types.ts';

/** A point of an outline, and the radius its corner is rounded with, m. */
export type XYR = readonly [number, number, number?];
/** A pen that turns a station and a height (or a half-width) into the view's coordinates. */
export type Pen = (x: number, z: number) => string;

const num = (v: number) => String(Math.round(v * 1e4) / 1e4);

export const penFor =
  (sign: 1 | -1): Pen =>
  (x, z) =>
    `${num(sign * x)},${num(z)}`;

/** A closed outline with its corners rounded off, no further than half an edge. */
export function rounded(pen: Pen, points: readonly XYR[]): string {
  const parts = points.map((point, i) => {
    const [x, z, r = 0] = point;
    if (r === 0) return pen(x, z);
    const before = points[(i + points.length - 1) % points.length] ?? point;
    const after = points[(i + 1) % points.length] ?? point;
    const toward = ([tx, tz]: XYR): string => {
      const far = Math.hypot(tx - x, tz - z);
      const share = far === 0 ? 0 : Math.min(r / far, 0.5);
      return pen(x + (tx - x) * share, z + (tz - z) * share);
    };
    return `${toward(before)}Q${pen(x, z)} ${toward(after)}`;
  });
  return `M${parts.join('L')}Z`;
}

export const line = (pen: Pen, points: readonly XYR[]): string =>
  `M${points.map(([x, z]) => pen(x, z)).join('L')}`;

/** Corners of an upright rectangle. */
export const rect = (x0: number, x1: number, z0: number, z1: number, r = 0): XYR[] => [
  [x0, z0, r],
  [x1, z0, r],
  [x1, z1, r],
  [x0, z1, r],
];

/** Points of an arc about (cx, cz), degrees counter-clockwise from +x. */
export function arc(cx: number, cz: number, r: number, fromDeg: number, toDeg: number, steps = 20): XYR[] {
  return Array.from({ length: steps + 1 }, (_, i): XYR => {
    const a = ((fromDeg + ((toDeg - fromDeg) * i) / steps) * Math.PI) / 180;
    return [cx + r * Math.cos(a), cz + r * Math.sin(a)];
  });
}

/** An outline that is its own mirror image, from its right half, the first and last points on the centreline. */
export const both = (half: readonly XYR[]): XYR[] => [
  ...half,
  ...half.toReversed().map(([y, z, r = 0]): XYR => [-y, z, r]),
];

/** The same for the plan, whose points are stations and half-widths. */
export const bothSides = (half: readonly XYR[]): XYR[] => [
  ...half,
  ...half.toReversed().map(([x, y, r = 0]): XYR => [x, -y, r]),
];

type Kind = ArtShape['kind'];

/** Draws onto one view; shapes belong to the named part, or to the body. */
export interface Brush {
  readonly fill: (kind: Kind, points: readonly XYR[], partId?: string | null) => ArtShape;
  readonly stroke: (kind: Kind, points: readonly XYR[], partId?: string | null) => ArtShape;
}

const brush = (view: View, pen: Pen, side: string | null): Brush => {
  const part = (id: string | null | undefined) =>
    id === undefined || id === null ? null : side === null ? id : id.replace('left', side);
  return {
    fill: (kind, points, id) => ({ view, kind, partId: part(id), path: rounded(pen, points) }),
    stroke: (kind, points, id) => ({ view, kind, partId: part(id), path: line(pen, points) }),
  };
};

/** Draws both sides alike; parts are named as on the left. */
export const onSides = (draw: (b: Brush) => readonly ArtShape[]): ArtShape[] => [
  ...draw(brush('left', penFor(-1), 'left')),
  ...draw(brush('right', penFor(1), 'right')),
];

/** Draws on the front, the rear or the plan: y to the viewer's right in both ends, the front to the right in the plan. */
export const onView = (
  view: 'front' | 'rear' | 'plan',
  draw: (b: Brush) => readonly ArtShape[],
): ArtShape[] => [...draw(brush(view, penFor(1), null))];
