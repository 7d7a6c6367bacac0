import { entryM } from '../../geometry/ray.ts';
import type { Solid } from '../../geometry/solid.ts';
import { scale, type Vec3 } from '../../geometry/vec.ts';
import type { OwnKeepOut, OwnSolid, OwnZone } from '../spec.ts';
import type { Vehicle, View } from '../types.ts';
import { toViewer, unproject } from './views.ts';
import type { Point2 } from '../../geometry/polygon.ts';

/** A rectangle drawn on a view between two opposite corners, m. */
export interface DrawnRect {
  readonly view: View;
  readonly from: Point2;
  readonly to: Point2;
}

/** From here a viewer looks at the vehicle, m from its middle. */
const FAR_M = 30;
/** A drawn solid or keep-out stands out from the body this far, m, until figures say otherwise. */
const OUT_M = 0.25;
/** A drawn keep-out begins this far below the skin, m. */
const UNDER_M = 0.05;
/** A zone lies this far off the skin, so that no ray begins below it, m. */
const OFF_M = 0.002;

/** The foremost solid at a point of a view, and how far toward the viewer it lies, m; null where there is none. */
function skinAt(
  vehicle: Vehicle,
  view: View,
  at: Point2,
): { readonly solid: Solid; readonly depthM: number } | null {
  const origin = unproject(view, at, FAR_M);
  const along = scale(toViewer[view], -1);
  const [nearest] = vehicle.solids
    .map((solid) => ({ solid, depthM: FAR_M - entryM(solid, origin, along) }))
    .filter(({ depthM }) => Number.isFinite(depthM))
    .toSorted((a, b) => b.depthM - a.depthM);
  return nearest ?? null;
}

/** How far toward the viewer the vehicle's skin lies at a point of a view, m; its outermost face where it has none. */
export function skinDepthM(vehicle: Vehicle, view: View, at: Point2): number {
  const skin = skinAt(vehicle, view, at);
  if (skin !== null) return skin.depthM;
  switch (view) {
    case 'plan':
      return vehicle.heightM;
    case 'front':
    case 'rear':
      return vehicle.lengthM / 2;
    case 'left':
    case 'right':
      return vehicle.widthM / 2;
  }
}

const middleOf = ({ from, to }: DrawnRect): Point2 => [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
const mm = (v: number): number => Math.round(v * 1000) / 1000 + 0;
const tidy = ([x, y, z]: Vec3): [number, number, number] => [mm(x), mm(y), mm(z)];

/** A zone drawn on a pane lies so far behind it, m: room for a lamp. */
const BEHIND_GLASS_M = 0.1;

/**
 * A zone where a rectangle was drawn, on the skin of the vehicle and facing straight out of the view, carried by the part it
 * was drawn on; on a pane, behind it.
 */
export function drawnZone(vehicle: Vehicle, rect: DrawnRect, id: string, name: string): OwnZone {
  const { view, from, to } = rect;
  const at = middleOf(rect);
  const [across, up] = [mm(Math.abs(to[0] - from[0])), mm(Math.abs(to[1] - from[1]))];
  // On the roof a zone's width runs across the vehicle, which the plan shows as up.
  const [widthM, heightM] = view === 'plan' ? [up, across] : [across, up];
  const skin = skinAt(vehicle, view, at);
  const isGlass = skin !== null && skin.solid.transmission > 0;
  const offM = isGlass ? -BEHIND_GLASS_M : OFF_M;
  return {
    id,
    name,
    face: view === 'plan' ? 'top' : view,
    facing: view === 'plan' ? 'top' : view,
    panDeg: 0,
    tiltDeg: 0,
    partId: skin?.solid.partId ?? null,
    mount: isGlass ? 'glass' : view === 'plan' ? 'roof' : 'panel',
    fixings: isGlass ? ['bracket', 'adhesive'] : ['drill'],
    centre: tidy(unproject(view, at, skinDepthM(vehicle, view, at) + offM)),
    widthM,
    heightM,
    singleWall: false,
    behind: isGlass ? 'Inside, behind the glass' : 'Not inspected',
    behindM: null,
    outM: null,
  };
}

function drawnBox(vehicle: Vehicle, rect: DrawnRect, under: number): { from: Vec3; to: Vec3 } {
  const depth = skinDepthM(vehicle, rect.view, middleOf(rect));
  const corners = [
    unproject(rect.view, rect.from, depth - under),
    unproject(rect.view, rect.to, depth + OUT_M),
  ] as const;
  const pick = (of: (...values: number[]) => number): Vec3 =>
    tidy([
      of(corners[0][0], corners[1][0]),
      of(corners[0][1], corners[1][1]),
      of(corners[0][2], corners[1][2]),
    ]);
  return { from: pick(Math.min), to: pick(Math.max) };
}

/** A box that stands on the skin where a rectangle was drawn. */
export const drawnSolid = (vehicle: Vehicle, rect: DrawnRect, id: string, name: string): OwnSolid => ({
  kind: 'box',
  id,
  name,
  ...spread(drawnBox(vehicle, rect, 0)),
  transmission: 0,
});

/** A keep-out before the skin where a rectangle was drawn. */
export const drawnKeepOut = (vehicle: Vehicle, rect: DrawnRect, id: string, name: string): OwnKeepOut => ({
  id,
  name,
  kind: 'other',
  ...spread(drawnBox(vehicle, rect, UNDER_M)),
});

const spread = ({ from, to }: { from: Vec3; to: Vec3 }) => ({ from: tidy(from), to: tidy(to) });

/** The same on the other side of the vehicle, under another id and name. */
export function mirroredZone(vehicle: Vehicle, z: OwnZone, id: string, name: string): OwnZone {
  const across = <F extends string>(face: F): F | 'left' | 'right' =>
    face === 'left' ? 'right' : face === 'right' ? 'left' : face;
  return {
    ...z,
    id,
    name,
    face: across(z.face),
    facing: across(z.facing),
    panDeg: -z.panDeg + 0,
    partId: otherSide(vehicle, z.partId),
    centre: [z.centre[0], mm(-z.centre[1]), z.centre[2]],
  };
}

/** The moving part that answers one on the other side; the same where none does. */
function otherSide({ parts }: Vehicle, partId: string | null): string | null {
  if (partId === null) return null;
  const twin = partId.includes('left') ? partId.replace('left', 'right') : partId.replace('right', 'left');
  return parts.some((part) => part.id === twin) ? twin : partId;
}

/** A box on the other side of the vehicle, under another id and name. */
export function mirroredBox<B extends { readonly from: readonly number[]; readonly to: readonly number[] }>(
  b: B,
  id: string,
  name: string,
): B & { id: string; name: string; from: [number, number, number]; to: [number, number, number] } {
  const [x0 = 0, y0 = 0, z0 = 0] = b.from;
  const [x1 = 0, y1 = 0, z1 = 0] = b.to;
  return { ...b, id, name, from: [x0, mm(-y1), z0], to: [x1, mm(-y0), z1] };
}
