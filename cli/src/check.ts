import type { Build } from '@flarik/core/design/schema';
import { checkBuild } from '@flarik/core/rules/check';
import { blocking, type RuleOutcome } from '@flarik/core/rules/finding';
import type { Output } from './output.ts';

/** The findings of a build: exit 1 when one blocks. */
export function check(build: Build, json: boolean): Output {
  const result = checkBuild(build);
  const exitCode = blocking(result.findings).length > 0 ? 1 : 0;
  if (json) return { exitCode, text: JSON.stringify({ build: build.name, ...result }, null, 2) };
  const lines = result.findings.map(
    (f) =>
      `${f.severity.padEnd(8)} ${f.outcome === 'cannot tell' ? 'Cannot tell: ' : ''}${f.sentence} (${f.packName}, ${f.clause})`,
  );
  return { exitCode, text: [...lines, summary(build, result.outcomes, lines.length)].join('\n') };
}

function summary(build: Build, outcomes: readonly RuleOutcome[], findings: number): string {
  if (build.rulePacks.length === 0)
    return `${build.name}: ${findings} findings. No rule pack is chosen, so no rule was checked.`;
  const count = (verdict: RuleOutcome['verdict']): number =>
    outcomes.filter((o) => o.verdict === verdict).length;
  const unsure = count('cannot tell');
  const told = unsure === 0 ? '' : `, ${unsure} cannot be told`;
  return `${build.name}: ${outcomes.length - count('silent')} rules and wishes checked, ${count('holds')} hold, ${count('broken')} broken${told}; ${findings} findings.`;
}
