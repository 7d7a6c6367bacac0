import { groupTarget, type CueColour, type Target } from '@flarik/core/design/functions';
import type { ModuleSetup, Placement } from '@flarik/core/design/placement';
import type { Build } from '@flarik/core/design/schema';
import { membersOf as memberKeys } from '@flarik/core/resolve/setMembers';

/** A module that a cue speaks to, and the lamp it is in. */
export interface Member {
  readonly placement: Placement;
  readonly setup: ModuleSetup;
}

/** The modules of a target. */
export function membersOf(build: Build, target: Target): Member[] {
  const all = build.placements.flatMap((placement) =>
    placement.modules.map((setup) => ({ placement, setup })),
  );
  const keys = memberKeys(build, target);
  return all.filter(({ placement, setup }) => keys.has(`${placement.id}/${setup.id}`));
}

/** A row of cues: whom they speak to. */
export interface CueRow {
  readonly target: Target;
  readonly name: string;
}

/** Everyone whom cues can speak to: the groups, the sets, and the lamps in no group. */
export const cueRows = (build: Build): CueRow[] => [
  ...build.timing.groups.map((g) => ({ target: groupTarget(g.id), name: g.name })),
  ...build.controls.sets.map((s): CueRow => ({ target: { kind: 'set', setId: s.id }, name: s.name })),
  { target: groupTarget(null), name: 'In no group' },
];

/** What a cue lights, in words: "colour 2", "white". */
export const inkText = (ink: CueColour): string => (typeof ink === 'number' ? `colour ${ink}` : ink);
