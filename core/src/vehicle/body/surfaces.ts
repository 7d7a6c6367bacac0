import { sheetSolid, type Solid, type SolidTraits } from '../../geometry/solid.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { Stations } from './dimension.ts';

/** Share of light through laminated windscreen glass, front door glass, and dark rear glass. */
export const WINDSCREEN = 0.75;
export const DOOR_GLASS = 0.7;
export const PRIVACY = 0.25;

export const PANEL_M = 0.06;
export const GLASS_M = 0.006;

/** A sheet across the body, leaning from its foot to its head. */
export function acrossSheet(
  id: string,
  foot: { readonly x: number; readonly y: number; readonly z: number },
  head: { readonly x: number; readonly y: number; readonly z: number },
  inward: Vec3,
  traits: SolidTraits,
): Solid {
  return sheetSolid(
    id,
    [
      [foot.x, foot.y, foot.z],
      [head.x, head.y, head.z],
      [head.x, -head.y, head.z],
      [foot.x, -foot.y, foot.z],
    ],
    inward,
    traits.transmission === undefined ? PANEL_M : GLASS_M,
    traits,
  );
}

/** A sheet of the left side that leans with the side glass, between belt and roof rail. */
export const leaning = (
  s: Stations,
  id: string,
  feet: readonly [number, number],
  heads: readonly [number, number],
  traits: SolidTraits = {},
): Solid =>
  sheetSolid(
    id,
    [
      [feet[0], s.halfWidth - 0.03, s.beltZ],
      [feet[1], s.halfWidth - 0.03, s.beltZ],
      [heads[1], s.railY, s.railZ],
      [heads[0], s.railY, s.railZ],
    ],
    [0, -1, 0],
    traits.transmission === undefined ? PANEL_M : GLASS_M,
    traits,
  );
