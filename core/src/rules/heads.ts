import type { RequirementData } from '../design/brief.ts';
import type { RuleData, RulePack } from '../design/rulePack.ts';
import type { Build } from '../design/schema.ts';
import { describeRequirement } from './brief/requirements.ts';
import type { Head } from './finding.ts';
import { kindOf } from './registry.ts';

/** The pack under which the wishes of a brief are told. */
export const BRIEF_PACK = 'brief';

export const ruleHead = (pack: RulePack, rule: RuleData): Head => ({
  packId: pack.id,
  packName: pack.name,
  ruleId: rule.id,
  kind: rule.kind,
  severity: rule.severity,
  clause: rule.clause,
  home: kindOf(rule).home,
});

export const requirementHead = (build: Build, wish: RequirementData): Head => ({
  packId: BRIEF_PACK,
  packName: 'The brief',
  ruleId: wish.id,
  kind: wish.kind,
  severity: wish.severity,
  clause: describeRequirement(build, wish),
  home: 'brief',
});
