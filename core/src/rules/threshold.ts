import type { Build } from '../design/schema.ts';
import { stateWith } from '../state/state.ts';
import type { StageIndex } from '../design/timing.ts';
import { darkGap } from './kinds/darkGap.ts';
import { speaksIn } from './registry.ts';

/** Below this a direction counts as dark where no pack says otherwise, cd. */
const USUAL_CD = 40;

/** What the chosen packs count as dark in a stage, cd: the strictest of them. */
export function thresholdIn(build: Build, stage: StageIndex): number {
  const asked = build.rulePacks
    .flatMap((pack) => pack.rules)
    .filter((rule) => rule.kind === darkGap.kind && speaksIn(rule, build, stateWith({ stage })))
    .flatMap((rule) => darkGap.of(rule)?.thresholdCd ?? []);
  return asked.length === 0 ? USUAL_CD : Math.max(...asked);
}
