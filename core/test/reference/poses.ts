import type { StopsOf } from '../../src/coverage/lampPoses.ts';
import type { Build } from '../../src/design/schema.ts';
import { stopsWithShut, vehicleOf } from '../../src/vehicle/vehicle.ts';

/** Every combination of stops there is. @param stopsOf - where each part may stand; anywhere when not said */
export const allPoses = ({ vehicle }: Build, stopsOf: StopsOf = stopsWithShut): string[][] =>
  vehicleOf(vehicle).parts.reduce<string[][]>(
    (poses, part) =>
      poses.flatMap((pose) => stopsOf(part).map((stop) => (stop === null ? pose : [...pose, stop.id]))),
    [[]],
  );
