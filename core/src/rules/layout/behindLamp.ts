import type { Placement } from '../../design/placement.ts';
import { ballAround, housingOf, type Ball } from '../../coverage/housings.ts';
import { layOut, occluderAt, type Obstacles } from '../../coverage/occlusion.ts';
import { dot, length, sub } from '../../geometry/vec.ts';
import type { PlacedModule } from '../../resolve/place.ts';
import { atMost } from '../finding.ts';
import type { Said } from '../judgement.ts';
import { bodyFieldsOf, placeKey } from '../../coverage/field.ts';
import { beamRays, passedBeams, type PassedBeam } from './beam.ts';
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
  const fields = bodyFieldsOf(subject.lookup);
  const beams = passedBeams(subject, p);
  let worst: { readonly by: Placement | null; readonly share: number } = { by: null, share: 0 };
  for (const other of others) {
    if (!beams.some(({ placed }) => mayMeet(other.ball, placed))) continue;
    const shares = fields.remembered(`behind ${placeKey(other.p)}`, p, [], () =>
      beams.map((beam) => hiddenBy(other, beam)),
    );
    const share = Math.max(...shares);
    if (share > worst.share) worst = { by: other.p, share };
  }
  return worst;
}

/** Share of what passes the body of a module's beam that a housing hides. */
function hiddenBy({ ball, obstacles }: Other, { placed, passes }: PassedBeam): number {
  const passed = passes.reduce((sum, share) => sum + share, 0);
  if (passed === 0 || !mayMeet(ball, placed)) return 0;
  const past = occluderAt(obstacles, placed.centre);
  const left = beamRays(placed.frame).reduce(
    (sum, { direction }, i) => sum + (passes[i] ?? 0) * past(direction),
    0,
  );
  return 1 - left / passed;
}

/** Whether a housing may stand before a module; false only where it does not. */
function mayMeet({ middle, radiusM }: Ball, { centre, frame }: PlacedModule): boolean {
  const to = sub(middle, centre);
  const away = length(to);
  if (away <= radiusM) return true;
  return Math.acos(dot(to, frame.aim) / away) <= FARTHEST_RAD + Math.asin(radiusM / away);
}
