import { BEARINGS } from '../coverage/field.ts';
import { lightToward, type LitChannel } from '../coverage/ring.ts';
import {
  bearingsIn,
  FACE_BEARINGS,
  FACE_SECTORS,
  faceSectorsWhere,
  type Sector,
} from '../coverage/sectors.ts';
import { highestCd, type Drive } from '../resolve/channels.ts';
import { timelinesOf } from '../timing/timeline.ts';
import { highestTogether } from '../timing/worst.ts';
import type { Colour } from '../words/colour.ts';
import type { Face } from '../words/face.ts';
import type { LampsCounted, PhotometricBasis } from './fields.ts';
import type { Situation } from './situation.ts';
import type { Subject } from './subject.ts';

/** A limit on the light of one colour toward a face, in whatever state a rule speaks of. */
export interface LightLimit {
  /** What the findings about it are about. */
  readonly subjects: readonly Subject[];
  readonly colour: Colour;
  readonly face: Face;
  readonly aboveCd: number;
  readonly of: PhotometricBasis;
  readonly lamps: LampsCounted;
  /** Which of that colour count. */
  readonly counts: (drive: Drive) => boolean;
  /** Looked from there, degrees; along the horizontal when not said. */
  readonly elevationDeg?: number;
}

/** Light toward a face that must be left whatever stands open, in whatever state a rule speaks of. */
export interface LightFloor {
  /** What the findings about it are about. */
  readonly subjects: readonly Subject[];
  readonly face: Face;
  /** What some lamp must send to it, cd. */
  readonly leastCd: number;
  readonly lamps: LampsCounted;
  /** Looked from there, degrees; along the horizontal when not said. */
  readonly elevationDeg?: number;
}

/** What a rule keeps to whatever stands open: looked for in every combination of open parts. */
export type PoseIndependentLimit = LightLimit | LightFloor;

/** The most light that some channels show toward a face, in the worst alignment of what drifts. */
export interface PeakTowardFace {
  readonly cd: number;
  /** Whether some moment shows just that; else no moment shows more. */
  readonly exact: boolean;
  readonly bearing: number;
  /** Where it is above the limit; none when it holds. */
  readonly sectors: readonly Sector[];
  /** The channels that are above the limit by themselves, or else the fewest that are together. */
  readonly channels: readonly LitChannel[];
  /** Every channel that adds to it, by id: a state with no other adds nothing new. */
  readonly adding: readonly string[];
}

const alone = ({ drive, share }: LitChannel, bearing: number): number =>
  highestCd(drive) * (share[bearing] ?? 0);

/** What a limit speaks of, in a state. */
export const peakAgainstLimit = (
  at: Situation,
  { colour, face, aboveCd, of, lamps, counts }: LightLimit,
): PeakTowardFace =>
  shownToward(
    at.lit(lamps).filter(({ drive }) => drive.colour === colour && counts(drive)),
    face,
    aboveCd,
    of,
  );

/**
 * The most that channels show toward a face.
 *
 * @param lit - of one colour, or all whose light adds up
 * @param of - all together, as an eye sees them, or the brightest lamp by itself
 */
function shownToward(
  lit: readonly LitChannel[],
  face: Face,
  aboveCd: number,
  of: PhotometricBasis,
): PeakTowardFace {
  const none: PeakTowardFace = {
    cd: 0,
    exact: true,
    bearing: FACE_SECTORS[face].fromDeg,
    sectors: [],
    channels: [],
    adding: [],
  };
  if (of === 'sum') return lit.length === 0 ? none : together(lit, face, aboveCd);
  const lamps = [...new Set(lit.map(({ drive }) => drive.placementId))].map((id) =>
    together(
      lit.filter(({ drive }) => drive.placementId === id),
      face,
      aboveCd,
    ),
  );
  const worst = lamps.reduce((a, b) => (b.cd > a.cd ? b : a), none);
  const above = new Set(lamps.flatMap((lamp) => lamp.sectors.flatMap(bearingsIn)));
  return {
    ...worst,
    sectors: above.size === 0 ? [] : faceSectorsWhere(face, (b) => above.has(b)),
    channels: lamps.filter((lamp) => lamp.sectors.length > 0).flatMap((lamp) => lamp.channels),
    adding: lamps.flatMap((lamp) => lamp.adding),
  };
}

function together(lit: readonly LitChannel[], face: Face, aboveCd: number): PeakTowardFace {
  const bearings = FACE_BEARINGS[face];
  const cd = new Float64Array(BEARINGS);
  for (const { drive, share } of lit) {
    const highest = highestCd(drive);
    for (const b of bearings) cd[b] = (cd[b] ?? 0) + highest * (share[b] ?? 0);
  }
  let exact = true;
  // Where even all highest levels together stay within the limit nothing need be laid out in time.
  const close = bearings.filter((b) => (cd[b] ?? 0) > aboveCd);
  const timelines = close.length === 0 ? [] : timelinesOf(lit.map((l) => l.drive));
  for (const b of close) {
    const highest = highestTogether(lightToward(lit, timelines, b));
    cd[b] = highest.value;
    if (!highest.exact && highest.value > aboveCd) exact = false;
  }
  const at = (b: number): number => cd[b] ?? 0;
  const worst = bearings.reduce((a, b) => (at(b) > at(a) ? b : a), FACE_SECTORS[face].fromDeg);
  const above = close.filter((b) => at(b) > aboveCd);
  if (above.length === 0)
    return { cd: at(worst), exact, bearing: worst, sectors: [], channels: [], adding: [] };
  const own = lit.filter((channel) => above.some((b) => alone(channel, b) > aboveCd));
  const some = lit.filter((channel) => above.some((b) => alone(channel, b) > SOME * aboveCd));
  return {
    cd: at(worst),
    exact,
    bearing: worst,
    sectors: faceSectorsWhere(face, (b) => at(b) > aboveCd),
    channels: own.length > 0 ? own : fewest(lit, worst, aboveCd),
    adding: (own.length > 0 ? own : some).map(({ drive }) => drive.channelId),
  };
}

/** A channel adds to a sum when it sends this share of the limit by itself. */
const SOME = 0.1;

/** The fewest channels that are too much together. */
function fewest(lit: readonly LitChannel[], worst: number, aboveCd: number): LitChannel[] {
  const inOrder = lit.toSorted((a, b) => alone(b, worst) - alone(a, worst));
  let sum = 0;
  return inOrder.filter((channel) => {
    if (sum > aboveCd || alone(channel, worst) === 0) return false;
    sum += alone(channel, worst);
    return true;
  });
}
