import type { Condition } from '../design/condition.ts';
import type { RuleOutcome } from '../rules/finding.ts';
import type { AskedRule } from '../rules/registry.ts';
import { askedRule, askedWish, type Asked } from './asked.ts';
import { OverBudget } from './diagrams.ts';
import { Poses } from './poses.ts';
import { RuleSearch } from './ruleSearch.ts';
import type { Known, RuleTrouble } from './ruleTrouble.ts';
import type { ProofSubject } from './subject.ts';

/** How one rule came out over all that the controls bring about. */
export interface RuleProof {
  readonly outcome: RuleOutcome;
  readonly troubles: readonly RuleTrouble[];
}

/**
 * Judges rules, and wishes of the brief about what shows, over every output state that the controls can bring about, one by
 * one; between two of them it can be given up.
 */
export function* packRules(
  subject: ProofSubject,
  rules: readonly AskedRule[],
  known: Known,
): Generator<string, RuleProof[]> {
  const { build } = subject;
  const asked = [
    ...rules.flatMap((rule) => askedRule(build, rule) ?? []),
    ...build.brief.constraints.flatMap((wish) => askedWish(build, wish) ?? []),
  ];
  const conditions = asked.flatMap(({ when }): Condition[] => (when === null ? [] : [when]));
  const poses = new Poses(build, conditions);
  const proofs: RuleProof[] = [];
  for (const one of asked) {
    yield one.head.clause;
    proofs.push(proofOf(subject, one, known, poses));
  }
  return proofs;
}

function proofOf(subject: ProofSubject, asked: Asked, known: Known, poses: Poses): RuleProof {
  const { packId, ruleId } = asked.head;
  try {
    const { troubles, count, margin, isBound, why } = new RuleSearch(subject, asked, known, poses).result();
    const fails = troubles.some(({ trouble }) => trouble.outcome === 'fails');
    const untold = troubles.length > 0 || why !== null;
    return {
      troubles,
      outcome: {
        packId,
        ruleId,
        verdict: fails ? 'broken' : untold ? 'cannot tell' : count === 0 ? 'silent' : 'holds',
        margin,
        statesChecked: count,
        ...(isBound ? { isBound } : {}),
        ...(why === null || fails ? {} : { why }),
      },
    };
  } catch (problem) {
    if (!(problem instanceof OverBudget)) throw problem;
    const why = problem.message;
    return {
      troubles: [],
      outcome: { packId, ruleId, verdict: 'cannot tell', margin: null, statesChecked: 0, why },
    };
  }
}
