import type { Placement } from '../../design/placement.ts';
import { ballAround, housingOf, type Ball } from '../../coverage/housings.ts';
import { layOut, occluderAt, type Obstacles } from '../../coverage/occlusion.ts';
import { dot, length, sub } from '../../geometry/vec.ts';
import type { PlacedModule } from '../../resolve/place.ts';
import { atMost } from '../finding.ts';
import type { Said } from '../judgement.ts';
import { beamRays, passedBeams } from './beam.ts';
import { percent, pointing, type LayoutSubject } from './subject.ts';

/** More of a beam than this behind another lamp's housing makes a module hardly worth its place. */
const MOST_HIDDEN = 0.4;

/** No direction of a beam that is asked about lies farther from its aim: 60° across and 15° up. */
const FARTHEST_RAD = Math.acos(Math.cos(Math.PI / 3) * Math.cos(Math.PI / 12));

/** A lamp, and its housing as what hides light. */
interface Other {
  readonly p: Placement;
  readonly ball: Ball;
  readonly obstacles: Obstacles;
}

/** Lamps of which the housing of another hides a module's beam with everything shut: of what the body lets pass. */
export function behindLampFaults(subject: LayoutSubject): Said[] {
  const lamps = subject.lamps.filter(({ status }) => status !== 'planned');
  const others = lamps.map((p): Other => {
    const solid = housingOf(subject.lookup, p, []);
    return { p, ball: ballAround(solid.vertices), obstacles: layOut([solid]) };
  });
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
  subject: LayoutSubject,
  p: Placement,
  others: readonly Other[],
): { readonly by: Placement | null; readonly share: number } {
  let worst: { readonly by: Placement | null; readonly share: number } = { by: null, share: 0 };
  for (const { placed, passes } of passedBeams(subject, p)) {
    const passed = passes.reduce((sum, share) => sum + share, 0);
    const met = passed === 0 ? [] : others.filter(({ ball }) => mayMeet(ball, placed));
    if (met.length === 0) continue;
    const rays = beamRays(placed.frame);
    for (const { p: by, obstacles } of met) {
      const past = occluderAt(obstacles, placed.centre);
      const left = rays.reduce((sum, { direction }, i) => sum + (passes[i] ?? 0) * past(direction), 0);
      const share = 1 - left / passed;
      if (share > worst.share) worst = { by, share };
    }
  }
  return worst;
}

/** Whether a housing may stand before a module; false only where it does not. */
function mayMeet({ middle, radiusM }: Ball, { centre, frame }: PlacedModule): boolean {
  const to = sub(middle, centre);
  const away = length(to);
  if (away <= radiusM) return true;
  return Math.acos(dot(to, frame.aim) / away) <= FARTHEST_RAD + Math.asin(radiusM / away);
}
