import { BUMPER_GUARD, FRONT_BLADE, WIDE_MIRRORS, WINCH } from './atTheFront.ts';
import { HEADACHE_RACK, REAR_DESK, TAIL_LIFT, TOOL_BOXES } from './atTheRear.ts';
import { WRECKER_BOOM } from './wrecker.ts';
import { DECK_VISOR, LADDER_RACK, MAST_BOARD, ROOF_RACK } from './onTop.ts';
import type { BodyType, Ranges } from '../body/dimension.ts';
import type { VehicleOption } from './option.ts';

/** Every option, front to rear. */
export const OPTIONS: readonly VehicleOption[] = [
  BUMPER_GUARD,
  FRONT_BLADE,
  WINCH,
  WIDE_MIRRORS,
  ROOF_RACK,
  DECK_VISOR,
  LADDER_RACK,
  MAST_BOARD,
  HEADACHE_RACK,
  TOOL_BOXES,
  TAIL_LIFT,
  REAR_DESK,
  WRECKER_BOOM,
];

/** What is measured on a body with some options fitted. */
export const rangesOf = (body: BodyType, options: readonly string[]): Ranges =>
  options.reduce<Ranges>((all, id) => ({ ...all, ...findOption(id)?.ranges }), body.ranges);

export const findOption = (id: string): VehicleOption | undefined => OPTIONS.find((o) => o.id === id);
