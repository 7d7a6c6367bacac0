import type { Finding, FindingKind } from '@flarik/core/rules/finding';

export const STEPS = [
  { id: 'brief', name: 'Brief' },
  { id: 'vehicle', name: 'Vehicle' },
  { id: 'layout', name: 'Layout' },
  { id: 'timing', name: 'Timing' },
  { id: 'visibility', name: 'Visibility' },
  { id: 'rules', name: 'Rules' },
] as const;
export type StepId = (typeof STEPS)[number]['id'];

/** The step in which a broken rule is put right. */
const HOME: Readonly<Record<FindingKind, StepId>> = {
  overlap: 'layout',
  'off-zone': 'layout',
  'keep-out': 'layout',
  hole: 'layout',
  fixing: 'layout',
  'near-signal': 'layout',
  blocked: 'layout',
  'turned-away': 'layout',
  balance: 'layout',
  reach: 'layout',
  asymmetry: 'layout',
  'lowest-lamp': 'brief',
  'no-holes': 'brief',
  'only-colours': 'brief',
  'never-colours': 'brief',
  'unseen-when-off': 'brief',
  'spend-at-most': 'brief',
  'keep-head': 'brief',
  'leave-factory-lamp': 'brief',
  'spare-outputs': 'brief',
  'stay-visible': 'brief',
  colour: 'layout',
  'white-rear': 'layout',
  'flash-rate': 'timing',
  'dark-gap': 'timing',
  'sync-partners': 'timing',
  pulses: 'timing',
  'side-dark': 'timing',
  'flashes-a-second': 'timing',
  rhythms: 'timing',
  'peak-current': 'timing',
  'free-runner': 'timing',
  'power-ceiling': 'visibility',
  'power-floor': 'visibility',
};

export const homeOf = ({ kind }: Finding): StepId => HOME[kind];

/** The findings that belong to a step; Rules has them all. */
export const findingsOf = (step: StepId, findings: readonly Finding[]): Finding[] =>
  findings.filter((f) => step === 'rules' || homeOf(f) === step);
