import type { RulePack } from '../../src/design/rulePack.ts';
import type { Build } from '../../src/design/schema.ts';
import { blankPack, withNewRule } from '../../src/rules/packEdits.ts';
import { kindOf, RULE_KINDS, type Rule } from '../../src/rules/registry.ts';
import type { Face } from '../../src/words/face.ts';
import { demoPack } from './demo.ts';
import { emptyBuild } from './places.ts';

/** What every rule of a test says. */
export const common: Pick<
  Rule,
  'id' | 'severity' | 'clause' | 'services' | 'stages' | 'when' | 'elevationsDeg'
> = {
  id: 'r',
  severity: 'blocks',
  clause: '1',
  services: [],
  stages: [2],
  when: null,
  elevationsDeg: [0],
};

/** A pack of these rules, by the id of 'test'. */
export const packOf = (...rules: Rule[]): RulePack => ({ ...demoPack(), id: 'test', rules });

/** An empty build that is checked by these rules. */
export const withRules = (...rules: Rule[]): Build => ({ ...emptyBuild(), rulePacks: [packOf(...rules)] });

/** A build whose packs count lamps of any kind for white to the rear, in every state. */
export const withWhiteOfAnyLamp = (build: Build): Build => ({
  ...build,
  rulePacks: build.rulePacks.map((pack) => ({
    ...pack,
    rules: pack.rules.map((rule) =>
      rule.kind === 'white-rear' ? { ...rule, lamps: 'all', when: null } : rule,
    ),
  })),
});

/**
 * A rule of every kind as it begins, its figures so many times what they are, where they may be.
 * @param faces - what a rule speaks of that speaks of sides, where that is not what it begins with
 */
export function everyKind(times: number, faces?: readonly [Face, ...Face[]]): RulePack[] {
  const pack = RULE_KINDS.reduce(
    (made, { kind }) => withNewRule(made, kind),
    blankPack('every', 'Every kind'),
  );
  const other = (field: string, value: unknown): unknown => {
    if (typeof value === 'number') return Number.isInteger(value) ? Math.round(value * times) : value * times;
    if (faces === undefined) return value;
    return field === 'faces' ? faces : field === 'face' || field === 'area' ? faces[0] : value;
  };
  const rules = pack.rules.map((rule) =>
    Object.entries(rule).reduce((changed, [field, value]) => {
      const tried = { ...changed, [field]: other(field, value) };
      return kindOf(rule).schema.safeParse(tried).success ? tried : changed;
    }, rule),
  );
  return [{ ...pack, rules }];
}
