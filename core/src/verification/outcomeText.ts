import type { Build } from '../design/schema.ts';
import { BRIEF_PACK } from '../rules/heads.ts';
import { describeRequirement } from '../rules/brief/requirements.ts';
import type { RuleOutcome } from '../rules/finding.ts';
import { ruleSentence } from '../rules/registry.ts';
import { CONTROLS_PACK, practiceFor } from '../rules/practice.ts';
import { PROOF_CHECKS } from './prove.ts';

/** What was asked, as a sentence, and who asked; null for what the build no longer has. */
export function outcomeText(
  build: Build,
  { packId, ruleId }: Pick<RuleOutcome, 'packId' | 'ruleId'>,
): { readonly sentence: string; readonly from: string } | null {
  if (packId === BRIEF_PACK) {
    const wish = build.brief.constraints.find(({ id }) => id === ruleId);
    return wish === undefined ? null : { sentence: describeRequirement(build, wish), from: 'The brief' };
  }
  const check = packId === CONTROLS_PACK ? PROOF_CHECKS.find(({ kind }) => kind === ruleId) : undefined;
  if (check !== undefined) return { sentence: check.clause, from: 'Controls' };
  const practice = practiceFor(build);
  const pack = [practice, ...build.rulePacks].find(({ id }) => id === packId);
  const rule = pack?.rules.find(({ id }) => id === ruleId);
  if (pack === undefined || rule === undefined) return null;
  return { sentence: ruleSentence(rule), from: `${pack.name}, ${rule.clause}` };
}
