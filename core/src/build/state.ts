import type { Ambient } from '../coverage/range.ts';
import type { Vehicle } from '../vehicle/types.ts';
import type { StageIndex } from './schema.ts';

/** What the state bar says: the stage, the parts that stand open, and the light around. */
export interface State {
  readonly stage: StageIndex;
  readonly open: readonly string[];
  readonly ambient: Ambient;
}

export const sameOpen = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((part) => b.includes(part));

export const sameState = (a: State, b: State): boolean =>
  a.stage === b.stage && a.ambient === b.ambient && sameOpen(a.open, b.open);

/** The pose in words: "everything shut", "hatch open". */
export function openText(vehicle: Vehicle, open: readonly string[]): string {
  if (open.length === 0) return 'everything shut';
  const names = vehicle.parts.filter((part) => open.includes(part.id)).map((part) => part.name.toLowerCase());
  return `${names.join(' and ')} open`;
}
