import { placeModules } from '@flarik/core/build/place';
import type { Placement } from '@flarik/core/build/schema';
import { bearingsIn, type Sector } from '@flarik/core/coverage/sectors';
import { bearingOf, directionOf } from '@flarik/core/geometry/direction';
import type { Vehicle } from '@flarik/core/vehicle/types';
import type { OpenParts } from '@flarik/core/vehicle/vehicle';
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
export function beamsOf(vehicle: Vehicle, placements: readonly Placement[], open: OpenParts): BeamPicture[] {
  return placements.flatMap((p) =>
    placeModules(vehicle, p, open).map(({ module, centre: [x, y], frame }) => {
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
