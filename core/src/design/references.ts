import { madeIn, Shelf } from '../fixture/shelf.ts';
import { bookOf } from '../timing/book.ts';
import { mayFollow } from '../timing/clock.ts';
import { PATTERNS } from '../timing/library.ts';
import { invalidPartReferences } from '../vehicle/looseParts.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { duplicateIds, type DanglingReference } from '../words/danglingReference.ts';
import { HOME } from './lampMoves.ts';
import type { Placement } from './placement.ts';
import type { BuildParts } from './parts.ts';
import { invalidControlReferences } from './invalidControlReferences.ts';
import { failureOf } from './timing.ts';

/** Every id in the document that names nothing, or names something twice. */
export function* danglingReferences(build: BuildParts): Generator<DanglingReference> {
  const groups = new Set(build.timing.groups.map((g) => g.id));
  const vehicle = vehicleOf(build.vehicle);
  const shelf = new Shelf(build.fixtures);
  const zones = new Set(vehicle.zones.map((zone) => zone.id));
  yield* invalidPartReferences(build.vehicle, ['vehicle']);
  yield* duplicateIds(build.placements, ['placements']);
  yield* duplicateIds(build.fixtures, ['fixtures']);
  yield* duplicateIds(build.photometry, ['photometry']);
  yield* duplicateIds(build.brief.constraints, ['brief', 'constraints']);
  for (const [i, f] of build.fixtures.entries()) yield* duplicateIds(f.modules, ['fixtures', i, 'modules']);
  yield* duplicateIds(build.timing.groups, ['timing', 'groups']);
  yield* duplicateIds(build.rulePacks, ['rulePacks']);
  yield* duplicateIds(build.accepted, ['accepted']);
  for (const [i, p] of build.placements.entries()) {
    const path = ['placements', i];
    if (!zones.has(p.zoneId))
      yield { path: [...path, 'zoneId'], reason: `no mount zone '${p.zoneId}' on this vehicle` };
    yield* looseModules(p, shelf, groups, path);
    for (const list of ['aims', 'heights'] as const) {
      yield* duplicateIds(p[list], [...path, list]);
      const home = p[list].findIndex(({ id }) => id === HOME);
      if (home >= 0) yield { path: [...path, list, home, 'id'], reason: `'${HOME}' is how the lamp was put` };
    }
    if (p.partnerId === null) continue;
    const partner = build.placements.find((other) => other.id === p.partnerId);
    if (partner?.partnerId !== p.id || partner.id === p.id)
      yield {
        path: [...path, 'partnerId'],
        reason: `'${p.partnerId}' is not a placement whose partner is '${p.id}'`,
      };
  }
  yield* looseTiming(build);
  yield* invalidControlReferences(build);
  yield* duplicateIds(build.scene, ['scene']);
  for (const [i, v] of build.scene.entries())
    for (const [k, { here }] of v.inStep.entries())
      if (!groups.has(here))
        yield { path: ['scene', i, 'inStep', k, 'here'], reason: `no sync group '${here}'` };
}

function* looseTiming(build: BuildParts): Generator<DanglingReference> {
  const { groups, patterns } = build.timing;
  yield* duplicateIds(patterns, ['timing', 'patterns']);
  const book = bookOf(build);
  for (const [i, p] of patterns.entries()) {
    const path = ['timing', 'patterns', i];
    if (PATTERNS.some(({ id }) => id === p.id))
      yield { path: [...path, 'id'], reason: `'${p.id}' is a pattern of the library` };
    const reason = failureOf(() => book.cycleOf(p));
    if (reason !== null) yield { path, reason };
  }
  for (const [i, g] of groups.entries()) {
    const path = ['timing', 'groups', i, 'followsId'];
    if (g.followsId === null) continue;
    if (!groups.some(({ id }) => id === g.followsId))
      yield { path, reason: `no sync group '${g.followsId}'` };
    else if (!mayFollow(groups, g.id, g.followsId))
      yield { path, reason: `following '${g.followsId}', '${g.id}' would follow itself` };
  }
}

function* looseModules(
  p: Placement,
  shelf: Shelf,
  groups: ReadonlySet<string>,
  path: PropertyKey[],
): Generator<DanglingReference> {
  const fixture = shelf.find(p.fixtureId);
  if (fixture === undefined) {
    yield { path: [...path, 'fixtureId'], reason: `no fixture '${p.fixtureId}' in the catalogue` };
    return;
  }
  const expected = fixture.modules.map((m) => m.id).join(', ');
  if (p.modules.map((m) => m.id).join(', ') !== expected)
    yield {
      path: [...path, 'modules'],
      reason: `must be the modules of '${p.fixtureId}' in order: ${expected}`,
    };
  for (const [m, setup] of p.modules.entries()) {
    const at = [...path, 'modules', m];
    if (setup.groupId !== null && !groups.has(setup.groupId))
      yield { path: [...at, 'groupId'], reason: `no sync group '${setup.groupId}'` };
    if (setup.colours.length > fixture.colourSlots)
      yield {
        path: [...at, 'colours'],
        reason: `'${p.fixtureId}' has at most ${fixture.colourSlots} colours`,
      };
    if (setup.insert !== 'warning' && !fixture.slotted)
      yield { path: [...at, 'insert'], reason: `'${p.fixtureId}' is not built slot by slot` };
    const made = madeIn(fixture, setup.insert);
    for (const [c, colour] of setup.disabled.entries())
      if (!setup.colours.includes(colour))
        yield { path: [...at, 'disabled', c], reason: `it has no ${colour} to disable` };
    for (const [c, colour] of setup.colours.entries()) {
      if (made[colour] === undefined && setup.insert !== 'blank')
        yield { path: [...at, 'colours', c], reason: `'${p.fixtureId}' is not available in ${colour}` };
    }
  }
}
