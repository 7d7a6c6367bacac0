import type { Build } from '@flarik/core/design/schema';
import { checkBuild } from '@flarik/core/rules/check';
import { blocking } from '@flarik/core/rules/finding';
import type { Output } from './output.ts';

/** The findings of a build: exit 1 when one blocks. */
export function check(build: Build, json: boolean): Output {
  const result = checkBuild(build);
  const exitCode = blocking(result.findings).length > 0 ? 1 : 0;
  if (json) return { exitCode, text: JSON.stringify({ build: build.name, ...result }, null, 2) };
  const broken = new Set(result.findings.map((f) => `${f.packId}/${f.ruleId}`)).size;
  const spoken = result.outcomes.filter((o) => o.verdict !== 'silent').length;
  const lines = result.findings.map(
    (f) => `${f.severity.padEnd(8)} ${f.sentence} (${f.packName}, ${f.clause})`,
  );
  const sum =
    build.rulePacks.length === 0
      ? 'No rule pack is chosen, so nothing was checked.'
      : `${build.name}: ${spoken} rules checked, ${broken} broken, ${result.findings.length} findings.`;
  return { exitCode, text: [...lines, sum].join('\n') };
}
