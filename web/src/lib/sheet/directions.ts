import type { Placement } from '@flarik/core/design/placement';
import { placeModules } from '@flarik/core/resolve/place';
import { bearingsIn, type Sector } from '@flarik/core/coverage/sectors';
import { bearingOf, directionOf } from '@flarik/core/geometry/direction';
import type { Lookup } from '@flarik/core/resolve/lookup';
import type { Vehicle } from '@flarik/core/vehicle/types';
import type { OpenParts } from '@flarik/core/vehicle/vehicle';
import type { Point2 } from '@flarik/core/geometry/polygon';
import { glowKey } from './glow';

/** How far a beam is drawn, m. */
const BEAM_M = 1.3;
/** How far marked bearings reach beyond the vehicle, m. */
const BEYOND_M = 0.36;

/** A module's beam on the plan. */
export interface BeamPicture {
  /** The module's glow key. */
  readonly key: string;
  readonly path: string;
}

/** The beams of some lamps on the plan: each module's aim between its half-angles; a circle where it has none. */
export function beamsOf(lookup: Lookup, placements: readonly Placement[], open: OpenParts): BeamPicture[] {
  return placements.flatMap((p) =>
    placeModules(lookup, p, open).map(({ module, centre: [x, y], frame }) => {
      const { h50Deg } = module.distribution;
      const { bearingDeg } = bearingOf(frame.aim);
      const edge = (deg: number): string => {
        const [forward, left] = directionOf(deg, 0);
        return `${x + BEAM_M * forward},${y + BEAM_M * left}`;
      };
      const path =
        h50Deg === null
          ? `M${x - BEAM_M},${y}a${BEAM_M},${BEAM_M} 0 1 0 ${2 * BEAM_M},0a${BEAM_M},${BEAM_M} 0 1 0 ${-2 * BEAM_M},0Z`
          : `M${x},${y}L${edge(bearingDeg - h50Deg)}A${BEAM_M},${BEAM_M} 0 0 0 ${edge(bearingDeg + h50Deg)}Z`;
      return { key: glowKey(p.id, module.id), path };
    }),
  );
}

/** Where the beam of a lamp can be taken hold of on the plan; null when it aims up or down, or all round. */
export interface BeamGrip {
  readonly from: Point2;
  readonly at: Point2;
  readonly bearingDeg: number;
}

export function gripOf(lookup: Lookup, p: Placement, open: OpenParts): BeamGrip | null {
  const [first] = placeModules(lookup, p, open);
  if (first?.module.distribution.h50Deg == null) return null;
  if (Math.abs(first.frame.aim[2]) > 0.9) return null;
  const { bearingDeg } = bearingOf(first.frame.aim);
  const [forward, left] = directionOf(bearingDeg, 0);
  const from: Point2 = [first.centre[0], first.centre[1]];
  return { from, at: [from[0] + BEAM_M * forward, from[1] + BEAM_M * left], bearingDeg };
}

/** By how much a key or the grip turns a lamp at a time, degrees. */
export const TURN_DEG = 5;

/** A pan turned further, within −180° to 180°. */
export const turned = (panDeg: number, byDeg: number): number =>
  ((((panDeg + byDeg + 180) % 360) + 360) % 360) - 180;

/** How far a lamp must be panned so that its beam points from its place toward a point of the plan, whole degrees. */
export function panToward({ from, bearingDeg }: BeamGrip, [a, b]: Point2, stepDeg: number): number {
  const wanted = bearingOf([a - from[0], b - from[1], 0]).bearingDeg;
  const turn = ((wanted - bearingDeg + 540) % 360) - 180;
  return Math.round(turn / stepDeg) * stepDeg;
}

/** Marked bearings as a wedge from the middle of the plan to a little beyond the vehicle. */
export function wedgePath({ lengthM, widthM }: Vehicle, sector: Sector): string {
  const rim = bearingsIn(sector).map((bearing) => {
    const [forward, left] = directionOf(bearing, 0);
    const along = Math.abs(forward) / (lengthM / 2 + BEYOND_M);
    const across = Math.abs(left) / (widthM / 2 + BEYOND_M);
    const r = 1 / Math.max(along, across);
    return `${r * forward},${r * left}`;
  });
  return `M0,0L${rim.join('L')}Z`;
}
