import { RULE_PACK_FORMAT, RulePack, type RuleData } from '../design/rulePack.ts';
import { InputError, parseInput, pathText } from '../words/errors.ts';
import { kindOf, ruleSentence } from './registry.ts';

/** A pack of one's own with nothing in it yet. */
export const blankPack = (id: string, name: string): RulePack => ({
  format: RULE_PACK_FORMAT,
  id,
  name,
  status: 'own',
  source: 'to be filled in',
  edition: 'to be filled in',
  checkedBy: '',
  checkedOn: '',
  notes: '',
  jurisdictions: [],
  upperAboveM: 1.5,
  rules: [],
});

/** A copy to be edited: one's own, and checked by nobody yet. */
export const ownCopy = (pack: RulePack, id: string): RulePack =>
  unchecked({ ...pack, id, name: `${pack.name.slice(0, 70)} (copy)`, status: 'own' });

/** What somebody checked is not what stands there now. */
const unchecked = (pack: RulePack): RulePack => ({ ...pack, checkedBy: '', checkedOn: '' });

/** A pack whose rules are changed: whoever checked it checked other rules. */
export const withRules = (pack: RulePack, rules: readonly RuleData[]): RulePack =>
  unchecked({ ...pack, rules: [...rules] });

/**
 * A pack that says something else of itself. Another source, edition or height is checked by nobody yet.
 * @throws {InputError} what cannot be so
 */
export function withHead(pack: RulePack, patch: Partial<Omit<RulePack, 'rules'>>): RulePack {
  const changed = parseInput(RulePack, { ...pack, ...patch });
  const other = (['source', 'edition', 'upperAboveM'] as const).some(
    (field) => changed[field] !== pack[field],
  );
  return other ? unchecked(changed) : changed;
}

/** A pack with a new rule of a kind at its end. */
export function withNewRule(pack: RulePack, kind: string): RulePack {
  const taken = new Set(pack.rules.map(({ id }) => id));
  const ids = Array.from({ length: pack.rules.length + 1 }, (_, i) => `${kind}-${i + 1}`);
  const id = ids.find((one) => !taken.has(one)) ?? kind;
  const rule = kindOf({ kind }).begin({
    id,
    severity: 'warns',
    clause: 'Clause to be filled in',
    services: [],
    stages: [1, 2, 3],
    when: null,
    elevationsDeg: [0],
  });
  return withRules(pack, [...pack.rules, rule]);
}

/**
 * A pack with one field of one rule changed.
 * @throws {InputError} the kind of rule refuses the value
 */
export function withRuleField(pack: RulePack, ruleId: string, field: string, value: unknown): RulePack {
  return withRules(
    pack,
    pack.rules.map((rule) => {
      if (rule.id !== ruleId) return rule;
      const changed = { ...rule, [field]: value };
      const issue = kindOf(rule).schema.safeParse(changed).error?.issues[0];
      if (issue !== undefined) throw new InputError(pathText([rule.id, ...issue.path]), issue.message);
      return changed;
    }),
  );
}

/** What is said of a rule besides its sentence. */
const headText = ({ clause, severity }: RuleData): string => `${clause}, ${severity}`;

export interface RuleDifference {
  readonly ruleId: string;
  /** Null when the rule is new. */
  readonly before: string | null;
  /** Null when the rule is gone. */
  readonly after: string | null;
}

/** What differs from one edition of a pack to another: rule by rule in sentences, those that are alike left out. */
export function differences(before: RulePack, after: RulePack): RuleDifference[] {
  const saidIn = (pack: RulePack) =>
    new Map(pack.rules.map((rule) => [rule.id, `${ruleSentence(rule)} (${headText(rule)})`]));
  const [old, now] = [saidIn(before), saidIn(after)];
  return [...new Set([...old.keys(), ...now.keys()])]
    .map((ruleId) => ({ ruleId, before: old.get(ruleId) ?? null, after: now.get(ruleId) ?? null }))
    .filter((d) => d.before !== d.after);
}

/** A pack with a rule moved up (-1) or down (1) among the others. */
export function movedRule(pack: RulePack, ruleId: string, by: -1 | 1): RulePack {
  const at = pack.rules.findIndex(({ id }) => id === ruleId);
  const rule = pack.rules[at];
  if (rule === undefined || pack.rules[at + by] === undefined) return pack;
  return { ...pack, rules: pack.rules.toSpliced(at, 1).toSpliced(at + by, 0, rule) };
}
