import type { RuleData } from '../design/rulePack.ts';
import type { Judgement } from './judgement.ts';
import { kindOf } from './registry.ts';
import type { LightLimit } from './shown.ts';
import { LEVEL_DEG, type Situation } from './situation.ts';

/** Where a rule looks from; what sees no light, or has eyes of its own, from nowhere in particular. */
const elevationsOf = (rule: RuleData): readonly number[] =>
  kindOf(rule).alongElevations ? rule.elevationsDeg : [LEVEL_DEG];

const aboutAt = (about: string, elevationDeg: number): string =>
  elevationDeg === LEVEL_DEG ? about : `${about}@${elevationDeg}`;

/** What a rule says of a state, from each elevation it looks from. */
export const judgementsOf = (rule: RuleData, at: Situation): Judgement[] =>
  elevationsOf(rule).flatMap((deg) =>
    kindOf(rule)
      .check(at.seenFrom(deg), rule)
      .map((judgement) =>
        judgement.outcome === 'holds' ? judgement : { ...judgement, about: aboutAt(judgement.about, deg) },
      ),
  );

/** What a rule limits whatever stands open, from each elevation it looks from. */
export const limitsOf = (rule: RuleData, at: Situation): LightLimit[] =>
  elevationsOf(rule).flatMap((deg) =>
    kindOf(rule)
      .limits(rule, at)
      .map((limit) => ({ ...limit, about: aboutAt(limit.about, deg), elevationDeg: deg })),
  );
