import type { Build } from '../design/schema.ts';
import { checkBuild } from '../rules/check.ts';
import type { Finding, RuleOutcome } from '../rules/finding.ts';
import { SEVERITIES } from '../words/severity.ts';
import { verify, type Counts } from './prove.ts';

/** Everything that is checked of a build: layout, timing, brief and packs, and its controls over every state. */
export interface WholeCheck {
  readonly findings: readonly Finding[];
  readonly outcomes: readonly RuleOutcome[];
  readonly counts: Counts;
}

/** Findings of several checks as one list, the gravest first. */
export const bySeverity = (...lists: readonly (readonly Finding[])[]): Finding[] =>
  lists.flat().toSorted((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));

export function checkWhole(build: Build): WholeCheck {
  const checked = checkBuild(build);
  const proof = verify(build, checked);
  return {
    findings: bySeverity(checked.findings, proof.findings),
    outcomes: outcomesOf(checked.outcomes, proof.outcomes),
    counts: proof.counts,
  };
}

const VERDICTS = ['broken', 'cannot tell', 'holds', 'silent'] as const;

/** Outcomes of several checks, each rule told once: the worst verdict, the least room, all states. */
export function outcomesOf(...lists: readonly (readonly RuleOutcome[])[]): RuleOutcome[] {
  const byRule = new Map<string, RuleOutcome>();
  for (const one of lists.flat()) {
    const key = `${one.packId}|${one.ruleId}`;
    const other = byRule.get(key);
    byRule.set(key, other === undefined ? one : both(other, one));
  }
  return [...byRule.values()];
}

function both(a: RuleOutcome, b: RuleOutcome): RuleOutcome {
  const margins = [a.margin, b.margin].filter((m) => m !== null);
  const margin = margins.length === 0 ? null : Math.min(...margins);
  const why = a.why ?? b.why;
  return {
    packId: a.packId,
    ruleId: a.ruleId,
    verdict: VERDICTS.find((v) => v === a.verdict || v === b.verdict) ?? 'silent',
    margin,
    statesChecked: a.statesChecked + b.statesChecked,
    ...([a, b].some((one) => one.isBound === true && one.margin === margin) ? { isBound: true } : {}),
    ...(why === undefined ? {} : { why }),
  };
}
