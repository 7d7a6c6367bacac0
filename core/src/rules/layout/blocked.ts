import { openText } from '../../state/state.ts';
import { stopsOf } from '../../vehicle/vehicle.ts';
import type { Fault } from '../finding.ts';
import { comesBefore, hiddenShare } from './beam.ts';
import { evidenceOf, percent, type LayoutSubject } from './subject.ts';

/** More of a beam than this hidden by the body makes the lamp hardly worth its place. */
const MOST_HIDDEN = 0.4;

/**
 * Lamps whose beam the body hides, by pose: with everything shut, and where a part that opens hides much more.
 * Lamps made to be covered when shut are asked in the poses that uncover them alone.
 */
export function blockedFaults(subject: LayoutSubject): Fault[] {
  const { vehicle } = subject.lookup;
  // Nobody warns with the bonnet up.
  const bonnet = new Set(stopsOf(vehicle, 'bonnet').map((stop) => stop.id));
  return subject.standing().flatMap(({ p, placed }): Fault[] => {
    const { face, partId, mount } = placed.zone;
    if (face === 'inside' || placed.fixture.kind === 'cabin') return [];
    const shut = hiddenShare(subject, p, []);
    // Glass takes its share by design; what counts behind it is what it hides beyond that.
    const most = mount === 'glass' ? 0.85 : MOST_HIDDEN;
    const say = (hidden: number, open: readonly string[]): Fault => ({
      sentence: `${percent(hidden)} % of the beam of "${p.label}" is hidden with ${openText(vehicle, open)}.`,
      figure: { value: hidden * 100, unit: '%' },
      limits: [{ value: most * 100, unit: '%', sense: 'at most' }],
      evidence: evidenceOf([p], open),
    });
    if (shut > most) return [say(shut, [])];
    const worst = subject.poses
      .filter(
        ([stop]) =>
          stop !== undefined &&
          !bonnet.has(stop) &&
          !ownPart(vehicle, partId, [stop]) &&
          comesBefore(subject, p, stop),
      )
      .map((open) => ({ open, hidden: hiddenShare(subject, p, open) }))
      .reduce((a, b) => (b.hidden > a.hidden ? b : a), { open: [] as readonly string[], hidden: shut });
    return worst.hidden > most ? [say(worst.hidden, worst.open)] : [];
  });
}

const ownPart = (
  vehicle: LayoutSubject['lookup']['vehicle'],
  partId: string | null,
  open: readonly string[],
): boolean =>
  vehicle.parts.some((part) => part.id === partId && part.stops.some((stop) => open.includes(stop.id)));
