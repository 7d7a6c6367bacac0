import type { Placement } from '../../design/placement.ts';
import { housingOf } from '../../coverage/housings.ts';
import { layOut, occluderAt, type Obstacles } from '../../coverage/occlusion.ts';
import { ballAround, type Ball } from '../../geometry/ball.ts';
import { dot, length, sub } from '../../geometry/vec.ts';
import type { PlacedModule } from '../../resolve/place.ts';
import { atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { bodyFieldsOf, placeKey } from '../../coverage/field.ts';
import { beamRays, passedBeams, type PassedBeam } from './beam.ts';
import { percent, pointing, type LayoutSubject } from './subject.ts';
import { about } from '../subject.ts';

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

/** Lamps of which the housings of others hide a module's beam with everything shut: of what the body lets pass. */
export function behindLampFaults(subject: LayoutSubject): IssueDraft[] {
  const lamps = subject.lamps.filter(({ status }) => status !== 'planned');
  const others = lamps.map((p): Other => {
    const solid = housingOf(subject.lookup, p, []);
    return { p, ball: ballAround(solid.vertices), obstacles: layOut([solid]) };
  });
  return lamps.flatMap((p): IssueDraft[] => {
    const { share, by } = worstBefore(
      subject,
      p,
      others.filter((other) => other.p.id !== p.id),
    );
    const [most, ...more] = by;
    if (share <= MOST_HIDDEN || most === undefined) return [];
    const whose = p.modules.length === 1 ? p.label : `one module of ${p.label}`;
    const besides = more.length === 0 ? '' : ` and ${more.length} more`;
    return [
      {
        ...pointing([p, ...by]),
        subjects: [about('lamp', p.id)],
        sentence: `${whose}: ${percent(share)} % of the beam is blocked by the housing of ${most.label}${besides} (limit ${percent(MOST_HIDDEN)} %).`,
        figure: { value: share * 100, unit: '%' },
        limits: [atMost(MOST_HIDDEN * 100, '%')],
      },
    ];
  });
}

/** The module of a lamp that loses most to housings, and whose they are, the one that hides most first. */
function worstBefore(
  subject: LayoutSubject,
  p: Placement,
  others: readonly Other[],
): { readonly share: number; readonly by: readonly Placement[] } {
  const fields = bodyFieldsOf(subject.lookup);
  const beams = passedBeams(subject, p);
  const before = others
    .filter(({ ball }) => beams.some(({ placed }) => mayMeet(ball, placed)))
    .map((other) => ({
      other,
      shares: fields.remembered(`behind ${placeKey(other.p)}`, p, [], () =>
        beams.map((beam) => hiddenBy([other], beam)),
      ),
    }));
  let worst: { readonly share: number; readonly by: readonly Placement[] } = { share: 0, by: [] };
  for (const [i, beam] of beams.entries()) {
    const hiding = before
      .map(({ other, shares }) => ({ other, share: shares[i] ?? 0 }))
      .filter(({ share }) => share > 0)
      .toSorted((a, b) => b.share - a.share);
    // Together they hide no more than the sum of what each hides.
    if (hiding.reduce((sum, { share }) => sum + share, 0) <= MOST_HIDDEN) continue;
    const share = hiddenBy(
      hiding.map(({ other }) => other),
      beam,
    );
    if (share > worst.share) worst = { share, by: hiding.map(({ other }) => other.p) };
  }
  return worst;
}

/** Share of what passes the body of a module's beam that housings hide together. */
function hiddenBy(others: readonly Other[], { placed, passes }: PassedBeam): number {
  const passed = passes.reduce((sum, share) => sum + share, 0);
  const pasts = others
    .filter(({ ball }) => mayMeet(ball, placed))
    .map(({ obstacles }) => occluderAt(obstacles, placed.centre));
  if (passed === 0 || pasts.length === 0) return 0;
  const left = beamRays(placed.frame).reduce(
    (sum, { direction }, i) => (pasts.every((past) => past(direction) === 1) ? sum + (passes[i] ?? 0) : sum),
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
