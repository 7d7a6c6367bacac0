import { add, dot, scale, type Vec3 } from '../geometry/vec.ts';
import type { Solid } from '../geometry/solid.ts';
import { OFF_M, onSkin } from './body/skin.ts';
import { zone } from './body/zone.ts';
import type { FactoryLamp, MountZone, ZoneFace } from './types.ts';

export const openingZoneId = (lampId: string): string => `opening-${lampId}`;
export const tieZoneId = (lampId: string): string => `tie-${lampId}`;

/**
 * A zone on each factory lamp that may be tied in: a "factory lamp" fixture goes there and brings the lamp into sync
 * groups, stages and sums like any other; an insert finds room in its housing.
 */
export function tieZones(lamps: readonly FactoryLamp[], solids: readonly Solid[]): MountZone[] {
  return mirrorsOf(lamps.filter((lamp) => lamp.mayTie).map((lamp) => tieZone(lamp, solids)));
}

/** The openings that factory lamps leave when they are taken out, for a lamp that takes their place. */
export const openingZones = (lamps: readonly FactoryLamp[], solids: readonly Solid[]): MountZone[] =>
  mirrorsOf(lamps.map((lamp) => openingZone(lamp, solids)));

function mirrorsOf(zones: readonly MountZone[]): MountZone[] {
  return zones.map((z) => {
    const twin = zones.find(
      (other) =>
        other.id !== z.id &&
        Math.abs(other.centre[0] - z.centre[0]) < SAME_M &&
        Math.abs(other.centre[1] + z.centre[1]) < SAME_M &&
        Math.abs(other.centre[2] - z.centre[2]) < SAME_M,
    );
    return { ...z, mirrorId: twin?.id ?? z.id };
  });
}

const SAME_M = 1e-6;
/** Where a lamp's light begins: the middle of its lens, moved out along its aim until no panel covers it. */
function seatOf({ outline, aim }: FactoryLamp, solids: readonly Solid[]): Vec3 {
  const middle = scale(
    outline.reduce<Vec3>((sum, p) => add(sum, p), [0, 0, 0]),
    1 / Math.max(1, outline.length),
  );
  return onSkin(add(middle, scale(aim, OFF_M)), aim, solids);
}

/** A zone over a lens, looking where the lamp shines; as large as the lens seen from there. */
function lensZone(lamp: FactoryLamp, solids: readonly Solid[], spec: LensZoneSpec): MountZone {
  const flat = zone({
    ...spec,
    face: faceOf(lamp.aim),
    partId: lamp.partId,
    centre: seatOf(lamp, solids),
    n: lamp.aim,
    widthM: 0,
    heightM: 0,
  });
  const extent = (axis: Vec3): number => {
    const along = lamp.outline.map((p) => dot(p, axis));
    return Math.max(...along) - Math.min(...along);
  };
  return { ...flat, widthM: extent(flat.u), heightM: extent(flat.v) };
}

type LensZoneSpec = Pick<MountZone, 'id' | 'name' | 'mount' | 'behind'> &
  Partial<Pick<MountZone, 'tiesIn' | 'behindM' | 'fixings'>>;

const tieZone = (lamp: FactoryLamp, solids: readonly Solid[]): MountZone =>
  lensZone(lamp, solids, {
    id: tieZoneId(lamp.id),
    name: lamp.name,
    mount: 'factory',
    tiesIn: lamp.does,
    behindM: HOUSING_M,
    behind: 'The lamp’s wiring: stop and turn signals have priority; follow the manufacturer’s instructions',
  });

/** Usual depth of a lamp's housing behind its lens, m. */
const HOUSING_M = 0.12;

const openingZone = (lamp: FactoryLamp, solids: readonly Solid[]): MountZone =>
  lensZone(lamp, solids, {
    id: openingZoneId(lamp.id),
    name: `Opening of the ${lamp.name.charAt(0).toLowerCase()}${lamp.name.slice(1)}`,
    mount: 'panel',
    fixings: ['bracket', 'as fitted'],
    behindM: HOUSING_M,
    behind: 'Opening of the lamp: its connector and an edge to seal',
  });

function faceOf([x, y, z]: Vec3): ZoneFace {
  if (z < -0.7) return 'inside';
  if (Math.abs(x) >= Math.abs(y)) return x > 0 ? 'front' : 'rear';
  return y > 0 ? 'left' : 'right';
}
