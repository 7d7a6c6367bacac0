import type { Fault } from '../finding.ts';
import { evidenceOf, type LayoutSubject } from '../layout/subject.ts';
import type { ConstraintOf } from '../../design/brief.ts';

/** A lens or pane that passes no more than this looks dark when nothing burns behind it. */
const DARK = 0.55;

/** Lamps that can be seen when off: not covered, not behind dark glass, not behind a smoked lens. */
export function checkUnseen(subject: LayoutSubject, c: ConstraintOf<'unseen-when-off'>): Fault[] {
  const seen = subject
    .standing()
    .filter(
      ({ p, placed: { zone } }) =>
        zone.face !== 'inside' &&
        p.lensTransmission > DARK &&
        !(zone.mount === 'glass' && zone.face !== 'front'),
    );
  if (seen.length <= c.atMost) return [];
  const names = seen.slice(0, 3).map(({ p }) => `"${p.label}"`);
  const more = seen.length > 3 ? ` and ${seen.length - 3} more` : '';
  return [
    {
      sentence: `${seen.length === 1 ? 'one lamp is' : `${seen.length} lamps are`} seen when off: ${names.join(', ')}${more}.`,
      figure: { value: seen.length, unit: 'lamps' },
      limits: [{ value: c.atMost, unit: 'lamps', sense: 'at most' }],
      evidence: evidenceOf(seen.map(({ p }) => p)),
    },
  ];
}
