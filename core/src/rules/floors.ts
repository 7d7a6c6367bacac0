import type { LampHeight } from '../coverage/ring.ts';
import { BEARINGS } from '../coverage/field.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { floorAt, powerFloor } from './kinds/powerFloor.ts';
import { appliesInState } from './registry.ts';

/**
 * What the chosen packs ask for by bearing from the lamps of a level in a state, cd·s/min; 0 where they ask nothing.
 * @param looksFrom - whether an elevation counts that rules look from, degrees; all when not said
 */
export function floorsIn(
  build: Build,
  state: State,
  level: LampHeight,
  looksFrom: (elevationDeg: number) => boolean = () => true,
): Float64Array {
  const floors = build.rulePacks
    .flatMap((pack) => pack.rules)
    .filter((rule) => rule.kind === powerFloor.kind && appliesInState(rule, build, { ...state, open: [] }))
    .filter((rule) => rule.elevationsDeg.some(looksFrom))
    .flatMap((rule) => powerFloor.of(rule) ?? []);
  return Float64Array.from({ length: BEARINGS }, (_, b) =>
    Math.max(0, ...floors.map((floor) => floorAt(floor, b, level))),
  );
}
