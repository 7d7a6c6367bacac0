import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { highestCd, type Drive } from '../resolve/channels.ts';
import type { MovingPart, PartPosition } from '../vehicle/types.ts';
import { BEARINGS, type Shades } from './field.ts';
import type { LampFields } from './lampFields.ts';

/** Far more than the search needs on the demo builds, and still a fraction of a second. */
export const MOST_LAID_OUT = 4000;

/** Where a part may stand; null for shut. */
export type StopsOf = (part: MovingPart) => readonly (PartPosition | null)[];

export interface PoseSearch {
  /** Poses at most, whole or in part, whose light is looked at. */
  readonly allowance?: number;
  /** Anywhere when not said. */
  readonly stopsOf?: StopsOf;
}

/** A channel that lights, with its light in every pose. */
export interface Lamp {
  readonly drive: Drive;
  readonly elevationDeg: number;
  readonly highestCd: number;
  /** The part that carries it; null on the body. */
  readonly carrier: MovingPart | null;
  readonly shades: (at: PartPosition | null) => Shades | undefined;
  /** A share of its peak that no pose exceeds at a bearing. */
  readonly most: (bearing: number) => number;
  /** By bearing a share of its peak below which no pose leaves it. */
  readonly least: Float64Array;
}

/** What is known of each channel's lamp; channels are made anew when anything about them changes. */
const knownLamps = new WeakMap<
  Drive,
  { readonly of: LampFields; readonly p: Placement; readonly lamp: Lamp }
>();

/** The lamps of some channels; those of none are left out. */
export function lampsOf(
  build: Build,
  drives: readonly Drive[],
  fields: LampFields,
  elevationDeg: number,
): Lamp[] {
  const placements = new Map(build.placements.map((p) => [p.id, p]));
  return drives.flatMap((drive): Lamp[] => {
    const p = placements.get(drive.placementId);
    if (p === undefined) return [];
    const known = knownLamps.get(drive);
    if (known?.of === fields && known.p === p && known.lamp.elevationDeg === elevationDeg)
      return [known.lamp];
    const lamp = lampOf(drive, p, fields, elevationDeg);
    knownLamps.set(drive, { of: fields, p, lamp });
    return [lamp];
  });
}

function lampOf(drive: Drive, p: Placement, fields: LampFields, elevationDeg: number): Lamp {
  const share = fields.most(p, elevationDeg).get(drive.moduleId);
  return {
    drive,
    elevationDeg,
    highestCd: highestCd(drive),
    carrier: fields.carrierOf(p),
    shades: (at) => fields.shades(p, at, elevationDeg).find((s) => s.moduleId === drive.moduleId),
    most: (bearing) => share?.[bearing] ?? 0,
    least: fields.least(p, elevationDeg).get(drive.moduleId) ?? new Float64Array(BEARINGS),
  };
}

/** The share of a lamp's light that passes a part toward a bearing. */
export const passesAt = (
  shades: Shades,
  part: MovingPart,
  stop: PartPosition | null,
  bearing: number,
): number => shades.ofPart(part, stop)?.[bearing] ?? 1;
