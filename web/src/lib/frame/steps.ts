import type { Finding } from '@flarik/core/rules/finding';

export const STEPS = [
  { id: 'brief', name: 'Brief' },
  { id: 'vehicle', name: 'Vehicle' },
  { id: 'layout', name: 'Layout' },
  { id: 'timing', name: 'Timing' },
  { id: 'controls', name: 'Controls' },
  { id: 'visibility', name: 'Visibility' },
  { id: 'rules', name: 'Rules' },
] as const;
export type StepId = (typeof STEPS)[number]['id'];

/** The findings that belong to a step; Rules has them all. */
export const findingsOf = (step: StepId, findings: readonly Finding[]): Finding[] =>
  findings.filter((f) => step === 'rules' || f.home === step);
