import { openText } from '../../state/state.ts';
import { placeModules } from '../../resolve/place.ts';
import { dot } from '../../geometry/vec.ts';
import { hiddenShares } from './beam.ts';
import { pointing, type LayoutSubject } from './subject.ts';
import type { IssueDraft } from '../judgement.ts';

/** A lamp that turns further than this with its door serves its direction no more, degrees. */
const MOST_TURNED_DEG = 50;

/** Lamps on a moving part that no longer serve their direction when it opens: turned away, or hidden there. */
export function turnedAwayFaults(subject: LayoutSubject): IssueDraft[] {
  const { lookup } = subject;
  return subject.lamps.flatMap((p): IssueDraft[] => {
    const zone = lookup.vehicle.zones.find((z) => z.id === p.zoneId);
    const part = lookup.vehicle.parts.find((candidate) => candidate.id === zone?.partId);
    if (zone === undefined || part === undefined || zone.face === 'inside' || p.status === 'planned')
      return [];
    const aim = (open: readonly string[]) => placeModules(lookup, p, new Set(open))[0]?.frame.aim;
    const shut = aim([]);
    return part.stops
      .flatMap((stop): IssueDraft[] => {
        const open = aim([stop.id]);
        if (shut === undefined || open === undefined) return [];
        const turned = (Math.acos(Math.min(1, Math.max(-1, dot(shut, open)))) * 180) / Math.PI;
        // A lamp serves its direction while any of its modules does.
        const hidden = Math.min(1, ...hiddenShares(subject, p, [stop.id]));
        if (turned <= MOST_TURNED_DEG && hidden < 0.9) return [];
        const how =
          turned > MOST_TURNED_DEG ? `is turned ${Math.round(turned)}° away` : 'is hidden behind the body';
        return [
          {
            sentence: `${p.label} ${how} with ${openText(subject.build, [stop.id])}. Its direction has one lamp fewer.`,
            figure: { value: turned, unit: '°' },
            limits: [{ value: MOST_TURNED_DEG, unit: '°', sense: 'at most' }],
            ...pointing([p], [stop.id]),
          },
        ];
      })
      .slice(0, 1);
  });
}
