import { uncrossed } from '../../geometry/polygon.ts';
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

/**
 * A sheet of the left side that leans with the side glass, between belt and roof rail: one, or none where the measures
 * leave it no room.
 */
export function leaning(
  s: Stations,
  id: string,
  feet: readonly [number, number],
  heads: readonly [number, number],
  traits: SolidTraits = {},
): Solid[] {
  const corners = uncrossed(feet, heads).map(([x, up]): Vec3 => [
    x,
    s.halfWidth - 0.03 + (s.railY - s.halfWidth + 0.03) * up,
    s.beltZ + (s.railZ - s.beltZ) * up,
  ]);
  if (corners.length === 0) return [];
  const thick = traits.transmission === undefined ? PANEL_M : GLASS_M;
  return [sheetSolid(id, corners, [0, -1, 0], thick, traits)];
}
