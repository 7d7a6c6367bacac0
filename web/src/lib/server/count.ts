import type { Build } from '@flarik/core/design/schema';
import { checkBuild } from '@flarik/core/rules/check';
import { blocking } from '@flarik/core/rules/finding';
import type { FindingCounts } from './buildRepo';

/** The findings of a build, counted for the list. */
export function countFindings(build: Build): FindingCounts {
  const { findings } = checkBuild(build);
  const blocks = blocking(findings).length;
  return { blocking: blocks, other: findings.length - blocks };
}
