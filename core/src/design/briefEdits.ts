import type { Vehicle } from '../vehicle/types.ts';
import { stopsOf } from '../vehicle/vehicle.ts';
import type { Brief, Constraint, ConstraintKind } from './brief.ts';
import type { Build } from './schema.ts';

/** Writes down what the agency said. */
export const changeBrief = (build: Build, patch: Partial<Omit<Brief, 'constraints'>>): Build => ({
  ...build,
  brief: { ...build.brief, ...patch },
});

const withConstraints = (build: Build, constraints: Constraint[]): Build => ({
  ...build,
  brief: { ...build.brief, constraints },
});

export const addConstraint = (build: Build, constraint: Constraint): Build =>
  withConstraints(build, [...build.brief.constraints, constraint]);

/** Puts a constraint in the place of the one that has its id. */
export const changeConstraint = (build: Build, constraint: Constraint): Build =>
  withConstraints(
    build,
    build.brief.constraints.map((c) => (c.id === constraint.id ? constraint : c)),
  );

export const removeConstraint = (build: Build, id: string): Build =>
  withConstraints(
    build,
    build.brief.constraints.filter((c) => c.id !== id),
  );

/** A constraint of a kind as it is first put down, to be adjusted; null when the build has nothing it could name. */
export function firstConstraint(
  kind: ConstraintKind,
  id: string,
  vehicle: Vehicle,
  { placements }: Pick<Build, 'placements'>,
): Constraint | null {
  const base = { id, severity: 'warns' as const };
  switch (kind) {
    case 'lowest-lamp':
      return { kind, ...base, heightM: 0.4 };
    case 'no-holes':
      return { kind, ...base, zoneIds: [] };
    case 'only-colours':
      return { kind, ...base, colours: ['red', 'amber'], faces: ['rear'] };
    case 'never-colours':
      return { kind, ...base, colours: ['white'], faces: ['rear'] };
    case 'unseen-when-off':
      return { kind, ...base, atMost: 0 };
    case 'spend-at-most':
      return { kind, ...base, minor: 500_000 };
    case 'keep-head': {
      const [head] = placements;
      return head === undefined ? null : { kind, ...base, placementId: head.id };
    }
    case 'leave-factory-lamp': {
      const [lamp] = vehicle.factoryLamps;
      return lamp === undefined ? null : { kind, ...base, lampId: lamp.id };
    }
    case 'spare-outputs':
      return { kind, ...base, outputs: 64, spare: 8 };
    case 'stay-visible': {
      const [zone] = vehicle.zones.filter((z) => z.face === 'rear');
      const [stop] = stopsOf(vehicle);
      return zone === undefined || stop === undefined
        ? null
        : { kind, ...base, zoneIds: [zone.id], open: [stop.id] };
    }
  }
}
