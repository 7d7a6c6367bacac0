import {
  all,
  any,
  during,
  first,
  is,
  applyTemplate,
  not,
  ofSet,
  some,
  there,
  warning,
  type FunctionTemplate,
} from './kit.ts';
import {
  groupTarget,
  lightCue,
  newFunction,
  sameTarget,
  type ControlFunction,
} from '../../design/functions.ts';
import { changeModules } from '../../design/moduleEdits.ts';
import { addGroup } from '../../design/timingEdits.ts';
import type { Build } from '../../design/schema.ts';
import type { MovingPart } from '../../vehicle/types.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import { anyDoorOpen, isOpen } from '../usualConditions.ts';
import type { SetClause } from '../../design/lampSets.ts';
import type { Candidate } from '../../resolve/candidates.ts';
import { chosenBy } from '../../resolve/setMembers.ts';
import { carriedBy, forUse, withRuledSet } from '../lampSets.ts';

/** What the doors switch. */
export const READY_DOORS: readonly FunctionTemplate[] = [
  {
    id: 'courtesy',
    name: 'Courtesy light',
    what: 'Interior light with a door open and ignition off, plus 30 s.',
    misfit: (b) =>
      first(
        there(b, 'courtesy'),
        some(b, [forUse('light')], 'scene, work or cabin light'),
        vehicleOf(b.vehicle).parts.some((p) => p.kind === 'door') ? null : 'the vehicle has no doors',
      ),
    applyTemplate: (b) => {
      const { build } = withRuledSet(b, 'inside', 'Inside', [forUse('light')]);
      const open = anyDoorOpen(build);
      if (open === null) return b;
      return applyTemplate(
        build,
        newFunction(
          'courtesy',
          'Courtesy light',
          'light',
          during(all(open, is('ignition', 'off')), 30_000),
          [lightCue(ofSet('inside'), 1, 'steady', { level: 0.3 })],
          { mayStay: true, withoutMaster: true },
        ),
      );
    },
  },
  {
    id: 'door-lamps',
    name: 'Door lamps',
    what: 'A lamp on the edge or inside of a door is steady white while that door is open. In a stage it flashes in its other colour. Lamps addressed by group move to a separate group.',
    misfit: (b) =>
      first(
        doorsOf(b)
          .flatMap((door) => [there(b, parkedId(door)), there(b, warnsId(door))])
          .find((why) => why !== null) ?? null,
        doorsOf(b).some((door) => lampsOn(b, door).length > 0)
          ? null
          : 'there is no lamp on the edge or inside of a door',
      ),
    applyTemplate: (b) =>
      doorsOf(b).reduce((build, door) => {
        const lamps = lampsOn(build, door);
        if (lamps.length === 0) return build;
        const setId = `lamp-of-${door.id}`;
        const name = `${door.name}, its lamp`;
        const staged = warning(build);
        const open = isOpen(door);
        const hasWhite = lamps.some((m) => m.colours.includes('white'));
        const other =
          staged.length === 0 ? undefined : lamps.flatMap((m) => m.colours).find((c) => c !== 'white');
        const functions: ControlFunction[] = [];
        if (hasWhite)
          functions.push(
            newFunction(
              parkedId(door),
              name,
              'light',
              during(other === undefined ? open : all(open, not(any(...staged)))),
              [lightCue(ofSet(setId), 'white', 'steady', { level: 0.3 })],
              { mayStay: true, withoutMaster: true },
            ),
          );
        if (other !== undefined)
          functions.push(
            newFunction(warnsId(door), `${name}, in warning`, 'warning', during(all(open, any(...staged))), [
              lightCue(ofSet(setId), other, 'blink'),
            ]),
          );
        return functions.reduce(
          applyTemplate,
          withRuledSet(withOwnGroup(build, lamps), setId, name, onEdge(door)).build,
        );
      }, b),
  },
];

const doorsOf = (build: Build): MovingPart[] =>
  vehicleOf(build.vehicle).parts.filter((p) => p.kind === 'door');
const parkedId = (door: MovingPart): string => `lamp-${door.id}`;
const warnsId = (door: MovingPart): string => `lamp-${door.id}-warns`;
const onEdge = (door: MovingPart): SetClause[] => [carriedBy(door.id, true), forUse('warning', 'light')];
const lampsOn = (build: Build, door: MovingPart): readonly Candidate[] =>
  chosenBy(build, { clauses: onEdge(door), pick: 'all' });

/** A closed door hides its lamp, which stages would still drive: lamps that they address by group get a group of their own. */
function withOwnGroup(build: Build, lamps: readonly Candidate[]): Build {
  const cued = lamps.filter(({ groupId }) => isCued(build, groupId));
  if (cued.length === 0) return build;
  const groups = build.timing.groups.map(({ id }) => id);
  const free = [GROUP, ...groups.map((_, i) => `${GROUP}-${i + 2}`)].find(
    (id) => !groups.includes(id) || !isCued(build, id),
  );
  const id = free ?? GROUP;
  const withGroup = groups.includes(id) ? build : addGroup(build, { id, name: 'Door lamps' });
  return changeModules(
    withGroup,
    cued.map(({ placementId, moduleId }) => ({ placementId, moduleId })),
    { groupId: id },
  );
}

const GROUP = 'door-lamps';

/** Whether some function addresses the modules of a group, or those in none. */
const isCued = ({ controls }: Build, groupId: string | null): boolean =>
  controls.functions.some((fn) =>
    fn.shows.some(({ cues }) => cues.some(({ target }) => sameTarget(target, groupTarget(groupId)))),
  );
