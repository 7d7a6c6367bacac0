import type { Build, StageIndex } from '../design/schema.ts';
import type { Cycle } from '../timing/pattern.ts';
import { isSteady } from '../timing/span.ts';

/**
 * Why the chosen packs do not let a pattern flash in a stage, in a few words; null when they do. Steady light has no
 * rate, and packs that do not speak to this stage or service are silent.
 */
export function patternMisfit(build: Build, stage: StageIndex, cycle: Cycle): string | null {
  if (cycle.lines.every((spans) => spans.length === 0 || isSteady(spans, cycle.cycleMs))) return null;
  for (const pack of build.rulePacks)
    for (const rule of pack.rules) {
      if (rule.kind !== 'flash-rate' && rule.kind !== 'pulses') continue;
      if (!rule.stages.some((s) => s === stage)) continue;
      if (rule.services.length > 0 && !rule.services.includes(build.service)) continue;
      if (rule.kind === 'pulses') {
        if (cycle.pulsesAFlash > rule.most) return `at most ${rule.most} pulses a flash are allowed`;
        continue;
      }
      if (cycle.slowestPerMinute < rule.minPerMinute || cycle.fastestPerMinute > rule.maxPerMinute)
        return `${rule.minPerMinute} to ${rule.maxPerMinute} a minute are allowed`;
    }
  return null;
}
