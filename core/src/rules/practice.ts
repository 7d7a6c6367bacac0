import { RULE_PACK_FORMAT, type RulePack } from '../design/rulePack.ts';
import type { Build } from '../design/schema.ts';
import { applicableRules } from './registry.ts';

/** The pack under which the shop's own practice about the controls is told. */
export const CONTROLS_PACK = 'controls';

const HEAD = { services: [], when: null, elevationsDeg: [0] };

/** What is asked of every programme, with the limits that are usual. */
const USUAL: RulePack = {
  format: RULE_PACK_FORMAT,
  id: CONTROLS_PACK,
  name: 'Controls',
  status: 'example',
  source: 'Shop practice',
  edition: 'as shipped',
  checkedBy: '',
  checkedOn: '',
  notes: '',
  jurisdictions: [],
  upperAboveM: 1.5,
  rules: [
    {
      ...HEAD,
      kind: 'all-off',
      id: 'stuck',
      severity: 'blocks',
      clause: 'All warning can be switched off',
      stages: [1, 2, 3],
      actionsToOff: 2,
    },
    {
      ...HEAD,
      kind: 'few-actions',
      id: 'actions',
      severity: 'advises',
      clause: 'Few actions to each function',
      stages: [1, 2, 3],
      toHighestStage: 1,
      toOthers: 2,
    },
    {
      ...HEAD,
      kind: 'standing-draw',
      id: 'drain',
      severity: 'advises',
      clause: 'Nothing drains the battery for hours',
      stages: [1, 2, 3],
      maxW: 60,
    },
    {
      ...HEAD,
      kind: 'light-at-doors',
      id: 'light-at-doors',
      severity: 'advises',
      clause: 'Light does not rise automatically at an open door',
      stages: [1, 2, 3],
      times: 2,
    },
    {
      ...HEAD,
      kind: 'stays-lit',
      id: 'darkness',
      severity: 'warns',
      clause: 'No open door darkens a side',
      stages: [2, 3],
      aboveCd: 10,
    },
  ],
};

/** The shop's practice for a build: where a pack of the build has a rule of a kind, that one takes its place. */
export function practiceFor(build: Build): RulePack {
  const own = new Set(applicableRules(build).map(({ rule }) => rule.kind));
  return { ...USUAL, rules: USUAL.rules.filter(({ kind }) => !own.has(kind)) };
}
