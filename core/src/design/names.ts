import type { BuildParts } from './parts.ts';
import type { Target } from './functions.ts';

/** A target as people call it. */
export function targetName(
  { timing, controls }: Pick<BuildParts, 'timing' | 'controls'>,
  target: Target,
): string {
  switch (target.kind) {
    case 'group':
      return timing.groups.find((g) => g.id === target.groupId)?.name ?? 'deleted sync group';
    case 'set':
      return controls.sets.find((s) => s.id === target.setId)?.name ?? 'deleted lamp set';
    case 'ungrouped':
      return 'in no group';
  }
}
