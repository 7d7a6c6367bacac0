import type { RuleData } from '../design/rulePack.ts';
import type { Verdict, Issue } from './judgement.ts';
import { kindOf } from './registry.ts';
import type { PoseIndependentLimit } from './shown.ts';
import { LEVEL_DEG, type Situation } from './situation.ts';
import { elevationText } from '../words/elevations.ts';

/** Where a rule looks from; what sees no light, or has eyes of its own, from nowhere in particular. */
export const looksFrom = (rule: RuleData): readonly number[] =>
  kindOf(rule).alongElevations ? rule.elevationsDeg : [LEVEL_DEG];

/** What a rule says of a state, seen from all the elevations it looks from: of each thing that is wrong, from where it is worst. */
export function judgementsOf(rule: RuleData, at: Situation): Verdict[] {
  const held: Verdict[] = [];
  const worst = new Map<string, Issue>();
  for (const deg of looksFrom(rule))
    for (const judgement of kindOf(rule).check(at.seenFrom(deg), rule)) {
      if (judgement.outcome === 'holds') {
        held.push(judgement);
        continue;
      }
      const key = `${judgement.outcome}|${judgement.about}`;
      const known = worst.get(key);
      if (known === undefined || (judgement.margin ?? 0) < (known.margin ?? 0))
        worst.set(key, { ...judgement, sentence: `${judgement.sentence}${elevationText(deg)}` });
    }
  return [...held, ...worst.values()];
}

/** What a rule keeps to whatever stands open, from each elevation it looks from. */
export const limitsOf = (rule: RuleData, at: Situation): PoseIndependentLimit[] =>
  looksFrom(rule).flatMap((deg) =>
    kindOf(rule)
      .limits(rule, at)
      .map((limit) => ({ ...limit, elevationDeg: deg })),
  );
