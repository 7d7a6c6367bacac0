import type { Build } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import type { Solid } from '../geometry/solid.ts';
import { moveSolid } from '../geometry/solid.ts';
import type { Vec3 } from '../geometry/vec.ts';
import type { State } from '../state/state.ts';
import type { MovingPart, PartPosition, Vehicle } from '../vehicle/types.ts';
import { lightsIn, sightsOf, type ModuleLight } from './source.ts';
import { solidsIn } from './stations.ts';

/** Housings of lamps stand out of the part that carries them by less, m. */
const HOUSING_M = 0.5;

/** By stop: how far ahead its part reaches, there or shut, with the lamps on it. */
const reaches = new WeakMap<Vehicle, ReadonlyMap<string, number>>();

function reachesOf(vehicle: Vehicle): ReadonlyMap<string, number> {
  const known = reaches.get(vehicle);
  if (known !== undefined) return known;
  const foremost = ({ id }: MovingPart, stop: PartPosition): number =>
    Math.max(
      ...vehicle.solids
        .filter(({ partId }) => partId === id)
        .flatMap((solid) => [solid, moveSolid(solid, stop.motion)])
        .flatMap(({ vertices }) => vertices.map(([x]) => x)),
    ) + HOUSING_M;
  const made = new Map(
    vehicle.parts.flatMap((part) => part.stops.map((stop) => [stop.id, foremost(part, stop)] as const)),
  );
  reaches.set(vehicle, made);
  return made;
}

/** What lights and what hides, for an eye that looks ahead. */
export interface Ahead {
  readonly lights: readonly ModuleLight[];
  readonly solids: readonly Solid[];
}

/**
 * What an eye that looks ahead has to do with in a state, in as few poses as tell the same: a part that stays behind both eye
 * and lamp hides nothing of what the lamp lights ahead of the eye, wherever it stands.
 */
export function aheadOf(build: Build, state: State, eye: Vec3): Ahead {
  const { vehicle } = lookupOf(build);
  const reach = reachesOf(vehicle);
  const before = (x: number, carriedBy: string | null): string[] => {
    const own = vehicle.parts.find(({ id }) => id === carriedBy)?.stops ?? [];
    return state.open.filter((id) => (reach.get(id) ?? Infinity) > x || own.some((stop) => stop.id === id));
  };
  return {
    lights: lightsIn(build, state, (p) => {
      const carriedBy = vehicle.zones.find(({ id }) => id === p.zoneId)?.partId ?? null;
      const foremost = Math.min(eye[0], ...sightsOf(build, p, state.open).map(({ centre: [x] }) => x));
      return before(foremost, carriedBy);
    }),
    solids: solidsIn(vehicle, before(eye[0], null)),
  };
}
