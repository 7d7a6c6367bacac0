import { vehicleOf } from '../vehicle/vehicle.ts';
import { partInput } from './inputs.ts';
import { HOME, lampMoves } from './lampMoves.ts';
import type { Build } from './schema.ts';

/** What is raised above the vehicle: a mast or a boom, or a lamp on its pole. */
export interface Raisable {
  /** The id of the input that it is. */
  readonly input: string;
  readonly name: string;
  /** The values of the input at which it stands raised. */
  readonly values: readonly string[];
}

/** All of a build that can be raised; a pole that stands anywhere but at its lowest is. */
export function raisablesOf(build: Build): Raisable[] {
  const masts = vehicleOf(build.vehicle)
    .parts.filter(({ kind }) => kind === 'mast')
    .map(({ id, name, stops }) => ({
      input: partInput(id),
      name: name.toLowerCase(),
      values: stops.map((stop) => stop.id),
    }));
  const poles = lampMoves(build).flatMap(({ input, placementId, name, stops }): Raisable[] => {
    const homeM = build.placements.find(({ id }) => id === placementId)?.poleM ?? 0;
    const heights = stops.flatMap(({ id, moved: { poleM } }) => (poleM === undefined ? [] : [{ id, poleM }]));
    const all = [{ id: HOME, poleM: homeM }, ...heights];
    const lowestM = Math.min(...all.map(({ poleM }) => poleM));
    const values = all.filter(({ poleM }) => poleM > lowestM).map(({ id }) => id);
    return values.length === 0 ? [] : [{ input, name, values }];
  });
  return [...masts, ...poles];
}
