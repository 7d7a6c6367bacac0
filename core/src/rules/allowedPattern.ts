import type { Build, StageIndex } from '../build/schema.ts';
import type { Pattern } from '../timing/pattern.ts';
import { patternFigures } from '../timing/patternFigures.ts';

/**
 * Why the chosen packs do not let a pattern flash in a stage, in a few words; null when they do. Steady light has no
 * rate, and packs that do not speak to this stage or service are silent.
 */
export function patternMisfit(build: Build, stage: StageIndex, pattern: Pattern): string | null {
  const { steady, cyclesPerMinute } = patternFigures(pattern);
  if (steady) return null;
  for (const pack of build.rulePacks)
    for (const rule of pack.rules) {
      if (rule.kind !== 'flash-rate' || !rule.stages.some((s) => s === stage)) continue;
      if (rule.services.length > 0 && !rule.services.includes(build.service)) continue;
      if (cyclesPerMinute < rule.minPerMinute || cyclesPerMinute > rule.maxPerMinute)
        return `${rule.minPerMinute} to ${rule.maxPerMinute} a minute are allowed`;
    }
  return null;
}
