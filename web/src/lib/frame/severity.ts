import type { Severity } from '@flarik/core/words/severity';

/** A shape for each severity, so that it is not told by colour alone. */
export const severityMark: Readonly<Record<Severity, { shape: string; name: string }>> = {
  blocks: { shape: '■', name: 'Blocks' },
  warns: { shape: '▲', name: 'Warns' },
  advises: { shape: '◆', name: 'Advises' },
  notes: { shape: '●', name: 'Notes' },
};

const counted: Readonly<Record<Severity, (n: number) => string>> = {
  blocks: () => 'blocking',
  warns: (n) => (n === 1 ? 'warning' : 'warnings'),
  advises: () => 'advice',
  notes: (n) => (n === 1 ? 'note' : 'notes'),
};

/** "2 warnings". */
export const severityCount = (severity: Severity, count: number): string =>
  `${count} ${counted[severity](count)}`;
