import type { StageIndex } from '@flarik/core/design/timing';
import type { Build } from '@flarik/core/design/schema';

/** Below this a direction counts as dark where no pack says otherwise, cd. */
const USUAL_CD = 40;

/** What the chosen packs count as dark in a stage, cd: the strictest of them. */
export function thresholdIn(build: Build, stage: StageIndex): number {
  const asked = build.rulePacks.flatMap((pack) =>
    pack.rules.flatMap((rule) =>
      rule.kind === 'dark-gap' &&
      rule.stages.some((s) => s === stage) &&
      (rule.services.length === 0 || rule.services.includes(build.service))
        ? [rule.thresholdCd]
        : [],
    ),
  );
  return asked.length === 0 ? USUAL_CD : Math.max(...asked);
}
