import type { Build } from '../design/schema.ts';
import { stateWith } from '../state/state.ts';
import type { ActiveFunction } from '../design/controls.ts';
import { darkGap } from './kinds/darkGap.ts';
import { appliesInState } from './registry.ts';

/** Below this a direction counts as dark where no pack says otherwise, cd. */
const USUAL_CD = 40;

/** What the chosen packs count as dark while something is on, cd: the strictest of them. */
export function thresholdIn(build: Build, on: readonly ActiveFunction[]): number {
  const asked = build.rulePacks
    .flatMap((pack) => pack.rules)
    .filter((rule) => rule.kind === darkGap.kind && appliesInState(rule, build, stateWith({ on })))
    .flatMap((rule) => darkGap.of(rule)?.thresholdCd ?? []);
  return asked.length === 0 ? USUAL_CD : Math.max(...asked);
}
