import { cross, dot, scale, sub, add, unit, type Vec3 } from '../geometry/vec.ts';
import type { Solid } from '../geometry/solid.ts';
import { zone } from './body/zone.ts';
import type { FactoryFunction, FactoryLamp, Face, MountZone } from './types.ts';

/** Functions whose lamps a flasher can drive besides their own circuit; stop, turn and plate lamps never. */
const FLASHED: readonly FactoryFunction[] = ['head', 'high beam', 'tail', 'reverse', 'fog'];

export const tieZoneId = (lampId: string): string => `tie-${lampId}`;

/**
 * A zone on each factory lamp that may be tied in: a "factory lamp" fixture goes there and brings the lamp into sync
 * groups, stages and sums like any other.
 */
export function tieZones(lamps: readonly FactoryLamp[], solids: readonly Solid[]): MountZone[] {
  const tied = lamps.filter((lamp) => lamp.mayTie && FLASHED.includes(lamp.does));
  const zones = tied.map((lamp) => zoneOn(lamp, solids));
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
/** The zone lies so far off the lens, so that the light does not begin below it, m. */
const OFF_M = 0.004;

/**
 * A lens is drawn on the vehicle's picture and may lie a little below the skin of its solids: moved out along its
 * normal until none covers it.
 */
function onSkin(at: Vec3, n: Vec3, solids: readonly Solid[]): Vec3 {
  const around = solids.find((s) => s.planes.every((plane) => dot(plane.n, at) < plane.d));
  if (around === undefined) return at;
  // The way out of a convex solid along n is through the first face ahead.
  const ways = around.planes.flatMap(({ n: face, d }) => {
    const toward = dot(face, n);
    return toward > 1e-9 ? [(d - dot(face, at)) / toward] : [];
  });
  const rest = solids.filter((s) => s !== around);
  return onSkin(add(at, scale(n, Math.min(...ways) + OFF_M)), n, rest);
}

function zoneOn(lamp: FactoryLamp, solids: readonly Solid[]): MountZone {
  const { outline } = lamp;
  const middle = scale(
    outline.reduce<Vec3>((sum, p) => add(sum, p), [0, 0, 0]),
    1 / Math.max(1, outline.length),
  );
  // Newell's normal, turned away from the vehicle's middle.
  const raw = outline.reduce<Vec3>(
    (sum, p, i) => add(sum, cross(sub(p, middle), sub(outline[(i + 1) % outline.length] ?? p, middle))),
    [0, 0, 0],
  );
  const n = unit(dot(raw, [middle[0], middle[1], 0]) < 0 ? scale(raw, -1) : raw);
  const flat = zone({
    id: tieZoneId(lamp.id),
    name: lamp.name,
    face: faceOf(n),
    mount: 'factory',
    partId: lamp.partId,
    centre: onSkin(add(middle, scale(n, OFF_M)), n, solids),
    n,
    widthM: 0,
    heightM: 0,
    behind: 'The lamp’s own wiring: stop and turn signals come first, and the maker’s word counts',
  });
  const extent = (axis: Vec3): number => {
    const along = outline.map((p) => dot(sub(p, middle), axis));
    return Math.max(...along) - Math.min(...along);
  };
  return { ...flat, widthM: extent(flat.u), heightM: extent(flat.v) };
}

function faceOf([x, y]: Vec3): Face {
  if (Math.abs(x) >= Math.abs(y)) return x > 0 ? 'front' : 'rear';
  return y > 0 ? 'left' : 'right';
}
