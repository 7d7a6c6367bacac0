import type { Severity } from '@flarik/core/words/severity';

/** A shape for each severity, so that it is not told by colour alone. */
export const severityMark: Readonly<Record<Severity, { shape: string; name: string }>> = {
  blocks: { shape: '■', name: 'Blocks' },
  warns: { shape: '▲', name: 'Warns' },
  advises: { shape: '◆', name: 'Advises' },
  notes: { shape: '●', name: 'Notes' },
};
