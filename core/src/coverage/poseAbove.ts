import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { timelinesOf } from '../timing/timeline.ts';
import { highestTogether } from '../timing/worst.ts';
import type { MovingPart } from '../vehicle/types.ts';
import { stopsWithShut } from '../vehicle/vehicle.ts';
import { fieldsOf } from './lampFields.ts';
import { lampsOf, MOST_LAID_OUT, passesAt, type Lamp, type PoseSearch, type StopsOf } from './lampPoses.ts';
import { lightToward } from './ring.ts';

/** Whether some pose, with any parts open together, sends more light than a limit. */
export type PoseAbove =
  | { readonly found: 'none' }
  /** With any one of these shut it is no longer above toward the bearing where it was found. */
  | { readonly found: 'pose'; readonly open: readonly string[] }
  /** The search was given up; no pose sends more than this, and perhaps none is above. */
  | { readonly found: 'unknown'; readonly mostCd: number; readonly bearing: number };

/**
 * Looks through every combination of stops for one in which channels together send more than a limit.
 * What each part hides is a factor of its own, so a bound on what is left cuts most combinations off.
 *
 * @param bearings - whole degrees that are looked at
 * @param aboveCd - the limit, cd
 */
export function poseAbove(
  build: Build,
  drives: readonly Drive[],
  bearings: readonly number[],
  aboveCd: number,
  elevationDeg: number,
  { allowance = MOST_LAID_OUT, stopsOf = stopsWithShut }: PoseSearch = {},
): PoseAbove {
  const fields = fieldsOf(build);
  const { parts } = lookupOf(build).vehicle;
  const lamps = lampsOf(build, drives, fields, elevationDeg);
  const bounds = bearings
    .map((bearing) => ({ bearing, mostCd: lamps.reduce((sum, l) => sum + l.highestCd * l.most(bearing), 0) }))
    .filter(({ mostCd }) => mostCd > aboveCd)
    .toSorted((a, b) => b.mostCd - a.mostCd);
  const [worst] = bounds;
  if (worst === undefined) return { found: 'none' };
  const search = new Search(lamps, parts, aboveCd, allowance, stopsOf);
  for (const { bearing } of bounds) {
    const open = search.at(bearing);
    if (open !== null) return { found: 'pose', open };
  }
  return search.givenUp ? { found: 'unknown', ...worst } : { found: 'none' };
}

/** A lamp's light toward one bearing: by stop of its carrier what arrives, and by part and stop the share that passes. */
interface Toward {
  readonly lamp: Lamp;
  /** Index of its carrier among the parts that matter; -1 on the body or where that does not matter. */
  readonly carrier: number;
  readonly at: readonly { readonly cd: number; readonly passes: readonly (readonly number[])[] }[];
}

/** One limit's search, bearing after bearing, within one allowance. */
class Search {
  readonly #lamps: readonly Lamp[];
  readonly #parts: readonly MovingPart[];
  readonly #aboveCd: number;
  readonly #timelines: ReturnType<typeof timelinesOf>;
  readonly #stopsOf: StopsOf;
  #left: number;

  constructor(
    lamps: readonly Lamp[],
    parts: readonly MovingPart[],
    aboveCd: number,
    allowance: number,
    stopsOf: StopsOf,
  ) {
    this.#stopsOf = stopsOf;
    this.#lamps = lamps;
    this.#parts = parts;
    this.#aboveCd = aboveCd;
    this.#timelines = timelinesOf(lamps.map((l) => l.drive));
    this.#left = allowance;
  }

  get givenUp(): boolean {
    return this.#left < 0;
  }

  /** The stops of a pose that is above toward a bearing; null when there is none or it was not found. */
  at(bearing: number): readonly string[] | null {
    const parts = this.#parts.filter((part) => this.#matters(part, bearing));
    const toward = this.#lamps.flatMap((lamp) => towardOf(lamp, parts, bearing, this.#stopsOf) ?? []);
    const pose: (number | null)[] = parts.map(() => null);
    if (!this.#descend(toward, parts, pose, 0)) return null;
    for (let shut = true; shut;) {
      shut = false;
      for (const [j, stop] of pose.entries()) {
        const part = parts[j];
        if (stop === 0 || part === undefined || this.#stopsOf(part)[0] !== null) continue;
        pose[j] = 0;
        if (this.#mayBeAbove(toward, pose)) shut = true;
        else pose[j] = stop;
      }
    }
    return parts.flatMap((part, j) => this.#stopsOf(part)[pose[j] ?? 0]?.id ?? []);
  }

  /** Whether a stop of a part changes what any lamp sends toward a bearing. */
  #matters(part: MovingPart, bearing: number): boolean {
    return this.#lamps.some((lamp) => {
      if (lamp.most(bearing) === 0) return false;
      if (lamp.carrier === part) return true;
      const places = lamp.carrier === null ? [null] : stopsWithShut(lamp.carrier);
      return places.some((place) => {
        const shades = lamp.shades(place);
        if (shades === undefined || shades.past[bearing] === 0) return false;
        const shut = passesAt(shades, part, null, bearing);
        return part.stops.some((stop) => passesAt(shades, part, stop, bearing) !== shut);
      });
    });
  }

  /** Sets the parts from the j-th on, the brightest stop first, until a pose is above; leaves it in `pose`. */
  #descend(
    toward: readonly Toward[],
    parts: readonly MovingPart[],
    pose: (number | null)[],
    j: number,
  ): boolean {
    if (!this.#mayBeAbove(toward, pose)) return false;
    const part = parts[j];
    if (part === undefined) return true;
    const choices = this.#stopsOf(part)
      .map((_, stop) => {
        pose[j] = stop;
        return { stop, cd: boundCd(toward, pose) };
      })
      .filter(({ cd }) => cd > this.#aboveCd)
      .toSorted((a, b) => b.cd - a.cd);
    for (const { stop } of choices) {
      pose[j] = stop;
      if (this.#descend(toward, parts, pose, j + 1)) return true;
    }
    pose[j] = null;
    return false;
  }

  /**
   * Whether a pose is above, some parts of it perhaps anywhere, each lamp's light then at its most: true of no pose
   * that is not, once all are set.
   */
  #mayBeAbove(toward: readonly Toward[], pose: readonly (number | null)[]): boolean {
    if (this.givenUp || boundCd(toward, pose) <= this.#aboveCd) return false;
    if (--this.#left < 0) return false;
    const lit = toward.map((t) => {
      const share = t.lamp.highestCd === 0 ? 0 : lampCd(t, pose) / t.lamp.highestCd;
      return { drive: t.lamp.drive, share: Float64Array.of(share) };
    });
    return highestTogether(lightToward(lit, this.#timelines, 0)).value > this.#aboveCd;
  }
}

function towardOf(
  lamp: Lamp,
  parts: readonly MovingPart[],
  bearing: number,
  stopsOf: StopsOf,
): Toward | null {
  if (lamp.most(bearing) === 0) return null;
  const places = lamp.carrier === null ? [null] : stopsOf(lamp.carrier);
  const at = places.map((place) => {
    const shades = lamp.shades(place);
    return {
      cd: lamp.highestCd * (shades?.past[bearing] ?? 0),
      passes: parts.map((part) =>
        stopsOf(part).map((stop) =>
          shades === undefined || part === lamp.carrier ? 1 : passesAt(shades, part, stop, bearing),
        ),
      ),
    };
  });
  return { lamp, carrier: parts.findIndex((part) => part === lamp.carrier), at };
}

/** The most that lamps send with some parts set and the others anywhere, cd; just what they send when all are set. */
const boundCd = (toward: readonly Toward[], pose: readonly (number | null)[]): number =>
  toward.reduce((sum, t) => sum + lampCd(t, pose), 0);

function lampCd({ carrier, at }: Toward, pose: readonly (number | null)[]): number {
  const place = pose[carrier] ?? null;
  const places = place === null ? at : at.slice(place, place + 1);
  return places.reduce((most, { cd, passes }) => {
    const left = passes.reduce((share, ofPart, j) => {
      const stop = pose[j] ?? null;
      return share * (stop === null ? Math.max(...ofPart) : (ofPart[stop] ?? 1));
    }, cd);
    return Math.max(most, left);
  }, 0);
}
