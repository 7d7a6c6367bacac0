import type { Target } from '../design/functions.ts';
import type { LampSet, SetClause, SetPick, SetRule } from '../design/lampSets.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { candidatesOf, shinesTo, type Candidate, type Equipped } from './candidates.ts';
import { lookupOf } from './lookup.ts';

const keyOf = ({ placementId, moduleId }: ModuleRef): string => `${placementId}/${moduleId}`;

/** The modules that a rule chooses, in document order. */
export function chosenBy(build: Equipped, { clauses, pick }: SetRule): readonly Candidate[] {
  const met = clauses.map((c) => meeting(build, c));
  const all = candidatesOf(build).filter((m) => met.every((meets) => meets(m)));
  const taken = new Set(picked(all, pick));
  return all.filter((m) => taken.has(m));
}

/** Members by set, for the lamps they were found among: a set never changes, nor do lamps. */
const known = new WeakMap<LampSet, { readonly of: Equipped; readonly members: ModuleRef[] }>();

/** The modules of a set, those that are listed by hand last. */
export function membersOfSet(build: Equipped, set: LampSet): ModuleRef[] {
  const { rule } = set;
  if (rule === null) return [...set.modules];
  const before = known.get(set);
  if (
    before?.of.placements === build.placements &&
    before.of.vehicle === build.vehicle &&
    before.of.fixtures === build.fixtures
  )
    return before.members;
  const without = new Set(set.without.map(keyOf));
  const byKey = new Map([...chosenBy(build, rule), ...set.modules].map((m) => [keyOf(m), m]));
  const members = [...byKey]
    .filter(([key]) => !without.has(key))
    .map(([, { placementId, moduleId }]) => ({ placementId, moduleId }));
  known.set(set, { of: build, members });
  return members;
}

/** The modules that a target names, as keys "placement/module". */
export function membersOf(build: Build, target: Target): ReadonlySet<string> {
  if (target.kind === 'set') {
    const set = build.controls.sets.find(({ id }) => id === target.setId);
    return new Set(set === undefined ? [] : membersOfSet(build, set).map(keyOf));
  }
  const groupId = target.kind === 'group' ? target.groupId : null;
  return new Set(
    build.placements.flatMap((p) =>
      p.modules.filter((m) => m.groupId === groupId).map((m) => `${p.id}/${m.id}`),
    ),
  );
}

/** What tells whether a module meets one condition. */
function meeting(build: Equipped, c: SetClause): (m: Candidate) => boolean {
  const is = testOf(build, c);
  return (m) => is(m) !== c.not;
}

function testOf(build: Equipped, c: SetClause): (m: Candidate) => boolean {
  switch (c.about) {
    case 'use':
      return (m) => c.of.includes(m.use);
    case 'colour':
      return (m) => c.of.some((colour) => m.colours.includes(colour));
    case 'shines': {
      const stops = new Set(lookupOf(build).vehicle.parts.flatMap((p) => p.stops.map(({ id }) => id)));
      const poses = [
        ...(c.closed ? [new Set<string>()] : []),
        // Parts come and go with the vehicle: what asks of one that is gone never applies.
        ...c.stops.filter((id) => stops.has(id)).map((id) => new Set([id])),
      ];
      const keys = new Set(
        poses.flatMap((open) =>
          candidatesOf(build, open)
            .filter((m) => c.of.some((face) => shinesTo(m, face)))
            .map(keyOf),
        ),
      );
      return (m) => keys.has(keyOf(m));
    }
    case 'side':
      return (m) => c.of.includes(m.side);
    case 'group':
      return (m) => c.of.includes(m.groupId);
    case 'zone':
      return (m) => c.of.includes(m.zoneId);
    case 'part':
      return (m) => m.partId !== null && c.of.includes(m.partId) && (m.covered || !c.covered);
    case 'tied':
      return (m) => m.tied !== null && c.of.includes(m.tied);
    case 'beside':
      return (m) => c.of.some((does) => m.isBeside(does));
  }
}

/** Lamps less than this below the highest are as high, and above the lowest as low, m. */
const LEVEL_M = 0.15;

function picked(modules: readonly Candidate[], pick: SetPick): readonly Candidate[] {
  switch (pick) {
    case 'all':
      return modules;
    case 'highest':
      return highest(modules);
    case 'inner': {
      const high = highest(modules);
      const outM = high.map(({ module }) => Math.abs(module.centre[1]));
      const limit = Math.max(Math.min(...outM) + 0.01, Math.max(...outM) / 2);
      return high.filter(({ module }) => Math.abs(module.centre[1]) <= limit);
    }
    case 'foremost': {
      const high = highest(modules);
      const front = high.reduce<Candidate | null>(
        (a, b) => (a === null || b.module.centre[0] > a.module.centre[0] ? b : a),
        null,
      );
      return high.filter(({ placementId }) => placementId === front?.placementId);
    }
    case 'stop':
    case 'reverse': {
      const beside = modules.filter((m) => m.isBeside(pick));
      if (beside.length > 0) return beside;
      const low = Math.min(...modules.map(({ module }) => module.centre[2]));
      return modules.filter(({ module }) => module.centre[2] <= low + LEVEL_M);
    }
  }
}

function highest(modules: readonly Candidate[]): readonly Candidate[] {
  const top = Math.max(...modules.map(({ module }) => module.centre[2]));
  return modules.filter(({ module }) => module.centre[2] >= top - LEVEL_M);
}
