import type { Cause } from '@flarik/core/rules/causes';

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

/** What is wrong that belongs to a step; Rules has it all. */
export const causesIn = (step: StepId, causes: readonly Cause[]): Cause[] =>
  causes.filter(({ first }) => step === 'rules' || first.home === step);
