import type { Placement } from '../../design/placement.ts';
import { isWarning } from '../../resolve/channels.ts';
import { openText } from '../../state/state.ts';
import type { MountZone } from '../../vehicle/types.ts';
import { stopsOf } from '../../vehicle/vehicle.ts';
import { atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { comesBefore, hiddenShares } from './beam.ts';
import { percent, pointing, type LayoutSubject, type StandingLamp } from './subject.ts';

/** More of a beam than this hidden by the body makes a module hardly worth its place. */
const MOST_HIDDEN = 0.4;
/** Glass takes its share by design; what counts behind it is what is hidden beyond that. */
const MOST_HIDDEN_BEHIND_GLASS = 0.85;

/** Lamps of which the body hides a module's beam with everything shut. */
export const blockedFaults = (subject: LayoutSubject): IssueDraft[] =>
  outside(subject).flatMap(({ p, placed }): IssueDraft[] => {
    const most = mostHidden(placed.zone);
    const shut = hiddenIn(subject, p, [], most);
    if (shut.modules.length === 0 || isUncovered(subject, { p, placed }, most)) return [];
    return [saying(subject, p, shut, most)];
  });

/** Whether a light to see by comes out once a part is opened: a bed strip under its cover is there for that. */
const isUncovered = (
  subject: LayoutSubject,
  { p, placed }: Pick<StandingLamp, 'p' | 'placed'>,
  most: number,
): boolean =>
  !isWarning(placed.fixture) &&
  subject.poses.some((open) => hiddenIn(subject, p, open, most).modules.length === 0);

/** Lamps whose light comes out with everything shut: those inside are made for the poses that uncover them. */
const outside = (subject: LayoutSubject): StandingLamp[] =>
  subject
    .standing()
    .filter(
      ({ p, placed }) =>
        placed.zone.face !== 'inside' && placed.fixture.kind !== 'cabin' && p.status !== 'planned',
    );

const mostHidden = ({ mount }: MountZone): number =>
  mount === 'glass' ? MOST_HIDDEN_BEHIND_GLASS : MOST_HIDDEN;

/** Lamps that shine freely with everything shut, of which a part that opens hides modules: in its worst pose. */
export function coveredFaults(subject: LayoutSubject): IssueDraft[] {
  const { vehicle } = subject.lookup;
  // Nobody warns with the bonnet up.
  const bonnet = new Set(stopsOf(vehicle, 'bonnet').map((stop) => stop.id));
  return outside(subject).flatMap(({ p, placed }): IssueDraft[] => {
    const { partId } = placed.zone;
    const most = mostHidden(placed.zone);
    const inPose = (open: readonly string[]): Hidden => hiddenIn(subject, p, open, most);
    const shut = inPose([]);
    if (shut.modules.length > 0) return [];
    const worst = subject.poses
      .filter(
        ([stop]) =>
          stop !== undefined &&
          !bonnet.has(stop) &&
          !ownPart(vehicle, partId, [stop]) &&
          comesBefore(subject, p, stop),
      )
      .map(inPose)
      .reduce((a, b) => (b.modules.length > a.modules.length || b.worst > a.worst ? b : a), shut);
    return worst.modules.length > 0 ? [saying(subject, p, worst, most)] : [];
  });
}

/** What a pose hides of a lamp. */
interface Hidden {
  readonly open: readonly string[];
  /** The modules that lose too much, by their place in the fixture. */
  readonly modules: readonly number[];
  /** The greatest share that any module loses. */
  readonly worst: number;
}

function hiddenIn(subject: LayoutSubject, p: Placement, open: readonly string[], most: number): Hidden {
  const shares = hiddenShares(subject, p, open);
  return {
    open,
    modules: shares.flatMap((share, i) => (share > most ? [i] : [])),
    worst: Math.max(0, ...shares),
  };
}

function saying(
  subject: LayoutSubject,
  p: Placement,
  { open, modules, worst }: Hidden,
  most: number,
): IssueDraft {
  const how = openText(subject.build, open);
  const count = p.modules.length;
  const which = modules.length === 1 ? 'one module' : `${modules.length} modules`;
  return {
    sentence:
      count === 1
        ? `${p.label}: ${percent(worst)} % of the beam is blocked with ${how} (limit ${percent(most)} %).`
        : `${p.label}: ${which} of ${count} blocked with ${how}, at most ${percent(worst)} % of the beam (limit ${percent(most)} %).`,
    figure: { value: worst * 100, unit: '%' },
    limits: [atMost(most * 100, '%')],
    ...pointing([p], open),
    channels: modules.flatMap((i) => {
      const m = p.modules[i];
      return m === undefined ? [] : [{ placementId: p.id, moduleId: m.id, slot: 1 }];
    }),
  };
}

const ownPart = (
  vehicle: LayoutSubject['lookup']['vehicle'],
  partId: string | null,
  open: readonly string[],
): boolean =>
  vehicle.parts.some((part) => part.id === partId && part.stops.some((stop) => open.includes(stop.id)));
