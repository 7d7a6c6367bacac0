import { z } from 'zod';
import type { RuleData, RulePack } from '../design/rulePack.ts';
import type { State } from '../state/state.ts';
import { judgementsOf, limitsOf } from './elevations.ts';
import { Lamps } from './fields.ts';
import { ruleHead } from './heads.ts';
import { fails, type Verdict } from './judgement.ts';
import { kindOf } from './registry.ts';
import type { Task } from './run.ts';
import type { Situation } from './situation.ts';
import { about } from './subject.ts';

const Counting = z.looseObject({ lamps: Lamps });

/**
 * For a rule that limits light and counts warning lamps alone: a note where all lamps together pass its limit, and the
 * counted ones do not. None for another rule.
 */
export function leftOutTask(pack: RulePack, rule: RuleData, speaks: (state: State) => boolean): Task[] {
  const kind = kindOf(rule);
  if (kind.sees !== 'light' || kind.monotonicity(rule) !== 'hurts') return [];
  const counting = Counting.safeParse(kind.schema.parse(rule));
  if (!counting.success || counting.data.lamps === 'all') return [];
  const whole: RuleData = { ...rule, lamps: 'all' };
  const troubled = (of: RuleData, at: Situation): Verdict[] =>
    judgementsOf(of, at).filter(({ outcome }) => outcome === 'fails');
  return [
    {
      ...ruleHead(pack, rule),
      severity: 'notes',
      listed: false,
      once: true,
      sees: 'light',
      upperAboveM: pack.upperAboveM,
      speaks,
      limits: (at) => limitsOf(whole, at),
      check: (at) => {
        // Where nothing but warning lamps light there is nothing that it leaves out.
        if (at.drives().every(({ warns }) => warns)) return [];
        const told = new Set(troubled(rule, at).map(keyOf));
        return troubled(whole, at).flatMap((one) =>
          one.outcome === 'holds' || told.has(one.about)
            ? []
            : [
                fails({
                  ...one,
                  subjects: [...one.subjects, about('topic', 'left out')],
                  sentence: `this rule counts warning lamps only. With all lamps: ${one.sentence}`,
                }),
              ],
        );
      },
    },
  ];
}

const keyOf = (judgement: Verdict): string => (judgement.outcome === 'holds' ? '' : judgement.about);
