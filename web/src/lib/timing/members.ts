import type { ModuleSetup, Placement } from '@flarik/core/design/placement';
import type { Build } from '@flarik/core/design/schema';

/** A module of a sync group, and the lamp it is in. */
export interface Member {
  readonly placement: Placement;
  readonly setup: ModuleSetup;
}

/** The modules of a sync group; those in none for null. */
export const membersOf = (build: Build, groupId: string | null): Member[] =>
  build.placements.flatMap((placement) =>
    placement.modules.filter((m) => m.groupId === groupId).map((setup) => ({ placement, setup })),
  );
