import type { Condition } from '../design/condition.ts';
import type { RuleOutcome } from '../rules/finding.ts';
import type { AskedRule } from '../rules/registry.ts';
import { askedRule, requirementQuery, type Asked } from './asked.ts';
import { CannotTell } from './cannotTell.ts';
import { Poses } from './poses.ts';
import { RuleSearch } from './ruleSearch.ts';
import type { Known, RuleTrouble } from './ruleTrouble.ts';
import type { VerificationSubject } from './subject.ts';

/** How one rule came out over all that the controls bring about. */
export interface RuleVerification {
  readonly outcome: RuleOutcome;
  readonly troubles: readonly RuleTrouble[];
}

/**
 * Judges rules, and wishes of the brief about what shows, over every output state that the controls can bring about, one by
 * one; between two of them, and now and then within one, it can be given up.
 */
export function* packRules(
  subject: VerificationSubject,
  rules: readonly AskedRule[],
  known: Known,
): Generator<string, RuleVerification[]> {
  const { build } = subject;
  const asked = [
    ...rules.flatMap((rule) => askedRule(build, rule) ?? []),
    ...build.brief.constraints.flatMap((wish) => requirementQuery(build, wish) ?? []),
  ];
  const conditions = asked.flatMap(({ when }): Condition[] => (when === null ? [] : [when]));
  const poses = new Poses(build, conditions);
  const proofs: RuleVerification[] = [];
  let now = subject;
  for (const one of asked) {
    yield one.head.clause;
    now = now.renewed;
    const proof = proofOf(now, one, known, poses);
    for (let step = proof.next(); ; step = proof.next()) {
      if (step.done === true) {
        proofs.push(step.value);
        break;
      }
      yield one.head.clause;
    }
  }
  return proofs;
}

function* proofOf(
  subject: VerificationSubject,
  asked: Asked,
  known: Known,
  poses: Poses,
): Generator<undefined, RuleVerification> {
  const { packId, ruleId } = asked.head;
  try {
    const { troubles, count, margin, isBound, why } = yield* new RuleSearch(
      subject,
      asked,
      known,
      poses,
    ).result();
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
    if (!(problem instanceof CannotTell)) throw problem;
    const why = problem.message;
    return {
      troubles: [],
      outcome: { packId, ruleId, verdict: 'cannot tell', margin: null, statesChecked: 0, why },
    };
  }
}
