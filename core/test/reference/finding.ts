import type { Finding } from '../../src/rules/finding.ts';

/** A finding as a rule about least light would make it. */
export const finding = (patch: Partial<Finding>): Finding => ({
  outcome: 'fails',
  id: 'pack|rule|stage-1||day|rear',
  subjects: [{ kind: 'face', id: 'rear' }],
  packId: 'pack',
  packName: 'Pack',
  ruleId: 'rule',
  kind: 'power-floor',
  home: 'visibility',
  severity: 'warns',
  clause: '1',
  sentence: 'Too little.',
  figure: { value: 90, unit: 'cd' },
  limits: [{ value: 100, unit: 'cd', sense: 'at least' }],
  evidence: { state: null, channels: [], sectors: [], steps: [] },
  ...patch,
});
