import { MOST_OF, type Condition } from '../design/condition.ts';
import { stagesOf } from '../design/controls.ts';
import { partInput } from '../design/inputs.ts';
import type { Build } from '../design/schema.ts';
import type { MovingPart } from '../vehicle/types.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';

/** A condition over many inputs or functions that people ask for by one name. */
export interface UsualCondition {
  readonly id: string;
  readonly name: string;
  readonly condition: Condition;
}

/** That a part is open, at whatever stop. */
export const isOpen = ({ id, stops }: MovingPart): Condition => ({
  kind: 'is',
  input: partInput(id),
  values: stops.map((stop) => stop.id),
});

/** Any of some conditions, in lists of as many as one holds; null for none. */
export function anyOf(of: readonly Condition[]): Condition | null {
  const [first] = of;
  if (first === undefined || of.length === 1) return first ?? null;
  if (of.length <= MOST_OF) return { kind: 'any', of };
  const lists = Array.from({ length: Math.ceil(of.length / MOST_OF) }, (_, i) =>
    anyOf(of.slice(i * MOST_OF, (i + 1) * MOST_OF)),
  );
  return anyOf(lists.flatMap((list) => list ?? []));
}

/** That any door is open; null for a vehicle without doors. */
export const anyDoorOpen = ({ vehicle }: Pick<Build, 'vehicle'>): Condition | null =>
  anyOf(
    vehicleOf(vehicle)
      .parts.filter(({ kind }) => kind === 'door')
      .map(isOpen),
  );

/** The usual conditions that a build has inputs and functions for. */
export function usualConditions(build: Build): UsualCondition[] {
  const stages = stagesOf(build).filter(({ mode }) => mode !== 0);
  const all: (Omit<UsualCondition, 'condition'> & { condition: Condition | null })[] = [
    { id: 'any-door', name: 'Any door open', condition: anyDoorOpen(build) },
    { id: 'any-part', name: 'Any part open', condition: anyOf(vehicleOf(build.vehicle).parts.map(isOpen)) },
    {
      id: 'any-stage',
      name: 'Any stage on',
      condition: anyOf(stages.map(({ id }): Condition => ({ kind: 'on', functionId: id }))),
    },
  ];
  return all.flatMap(({ condition, ...usual }) => (condition === null ? [] : [{ ...usual, condition }]));
}
