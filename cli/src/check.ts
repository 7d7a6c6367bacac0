import { stepText } from '@flarik/core/controls/script';
import type { Build } from '@flarik/core/design/schema';
import { checkWhole } from '@flarik/core/proof/checkWhole';
import { CONTROLS_PACK, type Counts } from '@flarik/core/proof/prove';
import { blocking, type Finding, type RuleOutcome } from '@flarik/core/rules/finding';
import type { Output } from './output.ts';

/** The findings of a build: exit 1 when one blocks. */
export function check(build: Build, json: boolean): Output {
  const { findings, outcomes, counts } = checkWhole(build);
  const exitCode = blocking(findings).length > 0 ? 1 : 0;
  if (json)
    return {
      exitCode,
      text: JSON.stringify({ build: build.name, findings: findings.map(withWay), outcomes, counts }, null, 2),
    };
  const lines = findings.flatMap((f) => [
    `${f.severity.padEnd(8)} ${f.outcome === 'cannot tell' ? 'Cannot tell: ' : ''}${f.sentence} (${f.packName}, ${f.clause})`,
    ...(f.evidence.steps.length === 0 ? [] : [`${' '.repeat(11)}by ${wayOf(f)}`]),
  ]);
  return {
    exitCode,
    text: [...lines, summary(build, outcomes, findings.length), countsText(counts)].join('\n'),
  };
}

const wayOf = ({ evidence }: Finding): string => evidence.steps.map(stepText).join(', ');

/** A finding with the way to it as `simulate` reads it. */
const withWay = (f: Finding) => (f.evidence.steps.length === 0 ? f : { ...f, events: wayOf(f) });

export const countsText = ({ raw, reachable, pictures, whole }: Counts): string =>
  whole
    ? `Controls: all ${reachable} states that can be reached of ${raw}, ${pictures} different pictures.`
    : `Controls: not proved. At least ${reachable} states can be reached of ${raw}; ${pictures} pictures were looked at.`;

function summary(build: Build, outcomes: readonly RuleOutcome[], findings: number): string {
  if (build.rulePacks.length === 0)
    return `${build.name}: ${findings} findings. No rule pack is chosen, so no rule was checked.`;
  const rules = outcomes.filter((o) => o.packId !== CONTROLS_PACK);
  const count = (verdict: RuleOutcome['verdict']): number =>
    rules.filter((o) => o.verdict === verdict).length;
  const unsure = count('cannot tell');
  const told = unsure === 0 ? '' : `, ${unsure} cannot be told`;
  return `${build.name}: ${rules.length - count('silent')} rules and wishes checked, ${count('holds')} hold, ${count('broken')} broken${told}; ${findings} findings.`;
}
