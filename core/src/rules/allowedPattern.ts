import type { Build } from '../design/schema.ts';
import type { ActiveFunction } from '../design/controls.ts';
import type { Cycle } from '../timing/pattern.ts';
import { isSteady } from '../timing/span.ts';
import { stateWith } from '../state/state.ts';
import { flashRate } from './kinds/flashRate.ts';
import { pulses } from './kinds/pulses.ts';
import { appliesInState } from './registry.ts';

/**
 * Why the chosen packs do not let a pattern flash in a function, in a few words; null when they do. Steady light has no
 * rate, and packs that do not speak to its stage or service are silent.
 */
export function patternMisfit(build: Build, on: ActiveFunction, cycle: Cycle): string | null {
  if (cycle.lines.every((spans) => spans.length === 0 || isSteady(spans, cycle.cycleMs))) return null;
  for (const data of build.rulePacks.flatMap((pack) => pack.rules)) {
    if (!appliesInState(data, build, stateWith({ on: [on] }))) continue;
    const limit = pulses.of(data);
    if (limit !== null && cycle.pulsesAFlash > limit.most)
      return `at most ${limit.most} pulses per flash are permitted`;
    const rate = flashRate.of(data);
    if (
      rate !== null &&
      (cycle.slowestPerMinute < rate.minPerMinute || cycle.fastestPerMinute > rate.maxPerMinute)
    )
      return `${rate.minPerMinute} to ${rate.maxPerMinute} flashes/min are permitted`;
  }
  return null;
}
