import type { Ambient } from '../coverage/range.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { stopOf } from '../vehicle/vehicle.ts';
import type { StageIndex } from '../design/schema.ts';

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

/** The pose in words: "everything shut", "hatch open", "rear left door pinned at 180°". */
export function openText(vehicle: Vehicle, open: readonly string[]): string {
  const set = new Set(open);
  const texts = vehicle.parts.flatMap((part) => {
    const stop = stopOf(part, set);
    return stop === null ? [] : [`${part.name.toLowerCase()} ${stop.name}`];
  });
  if (texts.length === 0) return 'everything shut';
  return texts.every((t) => t.endsWith(' open'))
    ? `${texts.map((t) => t.slice(0, -5)).join(' and ')} open`
    : texts.join(' and ');
}
