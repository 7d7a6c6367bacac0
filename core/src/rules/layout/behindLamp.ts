import type { Placement } from '../../design/placement.ts';
import { bodyFieldsOf } from '../../coverage/field.ts';
import { housingOf } from '../../coverage/housings.ts';
import { layOut, occluderAt, type Obstacles } from '../../coverage/occlusion.ts';
import { atMost } from '../finding.ts';
import type { Said } from '../judgement.ts';
import { beamRays } from './beam.ts';
import { percent, pointing, type LayoutSubject } from './subject.ts';

/** More of a beam than this behind another lamp's housing makes a module hardly worth its place. */
const MOST_HIDDEN = 0.4;

/** A lamp, and its housing as what hides light. */
interface Other {
  readonly p: Placement;
  readonly obstacles: Obstacles;
}

/** Lamps of which the housing of another hides a module's beam with everything shut: of what the body lets pass. */
export function behindLampFaults(subject: LayoutSubject): Said[] {
  const lamps = subject.lamps.filter(({ status }) => status !== 'planned');
  const others = lamps.map((p): Other => ({ p, obstacles: layOut([housingOf(subject.lookup, p, [])]) }));
  return lamps.flatMap((p): Said[] => {
    const worst = worstBefore(
      subject,
      p,
      others.filter((other) => other.p.id !== p.id),
    );
    if (worst.share <= MOST_HIDDEN || worst.by === null) return [];
    const whose = p.modules.length === 1 ? `"${p.label}"` : `a module of "${p.label}"`;
    return [
      {
        ...pointing([p, worst.by]),
        about: p.id,
        sentence: `${percent(worst.share)} % of the beam of ${whose} is hidden by the housing of "${worst.by.label}".`,
        figure: { value: worst.share * 100, unit: '%' },
        limits: [atMost(MOST_HIDDEN * 100, '%')],
      },
    ];
  });
}

/** The housing that hides most of any module of a lamp. */
function worstBefore(
  { lookup }: LayoutSubject,
  p: Placement,
  others: readonly Other[],
): { readonly by: Placement | null; readonly share: number } {
  let worst: { readonly by: Placement | null; readonly share: number } = { by: null, share: 0 };
  for (const standing of bodyFieldsOf(lookup).standing(p, [])) {
    const rays = beamRays(standing).map(({ direction, weight }) => ({
      direction,
      passes: weight * standing.past(direction),
    }));
    const passed = rays.reduce((sum, { passes }) => sum + passes, 0);
    if (passed === 0) continue;
    for (const { p: by, obstacles } of others) {
      const past = occluderAt(obstacles, standing.placed.centre);
      const left = rays.reduce((sum, { direction, passes }) => sum + passes * past(direction), 0);
      const share = 1 - left / passed;
      if (share > worst.share) worst = { by, share };
    }
  }
  return worst;
}
