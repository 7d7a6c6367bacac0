import { SEVERITY_NAMES, type Severity } from '@flarik/core/words/severity';

/** A shape for each severity, so that it is not told by colour alone. */
export const severityMark: Readonly<Record<Severity, { shape: string; name: string }>> = {
  blocks: { shape: '■', name: SEVERITY_NAMES.blocks },
  warns: { shape: '▲', name: SEVERITY_NAMES.warns },
  advises: { shape: '◆', name: SEVERITY_NAMES.advises },
  notes: { shape: '●', name: SEVERITY_NAMES.notes },
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
