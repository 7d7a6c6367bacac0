import type { Build } from '../design/schema.ts';
import { checkBuild } from '../rules/check.ts';
import type { Finding, RuleOutcome } from '../rules/finding.ts';
import { SEVERITIES } from '../words/severity.ts';
import { prove, type Counts } from './prove.ts';

/** Everything that is checked of a build: layout, timing, brief and packs, and its controls over every state. */
export interface WholeCheck {
  readonly findings: readonly Finding[];
  readonly outcomes: readonly RuleOutcome[];
  readonly counts: Counts;
}

/** Findings of several checks as one list, the gravest first. */
export const gravestFirst = (...lists: readonly (readonly Finding[])[]): Finding[] =>
  lists.flat().toSorted((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));

export function checkWhole(build: Build): WholeCheck {
  const checked = checkBuild(build);
  const proof = prove(build);
  return {
    findings: gravestFirst(checked.findings, proof.findings),
    outcomes: [...checked.outcomes, ...proof.outcomes],
    counts: proof.counts,
  };
}
