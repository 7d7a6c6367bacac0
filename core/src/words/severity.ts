import { z } from 'zod';

/** How grave a finding is, the gravest first. */
export const SEVERITIES = ['blocks', 'warns', 'advises', 'notes'] as const;
export const Severity = z.enum(SEVERITIES, { error: `must be one of ${SEVERITIES.join(', ')}` });
export type Severity = z.infer<typeof Severity>;

/** As they are shown. */
export const SEVERITY_NAMES: Readonly<Record<Severity, string>> = {
  blocks: 'Blocking',
  warns: 'Warning',
  advises: 'Advice',
  notes: 'Note',
};
