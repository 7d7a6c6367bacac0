import type { RulePack } from '../../src/design/rulePack.ts';
import type { Build } from '../../src/design/schema.ts';
import type { Rule } from '../../src/rules/registry.ts';
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
