import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import { lookupOf } from '../resolve/lookup.ts';
import type { MovingPart, PartPosition } from '../vehicle/types.ts';
import { stopsWithShut } from '../vehicle/vehicle.ts';
import type { Face } from '../words/face.ts';
import { fieldsOf } from './lampFields.ts';
import { lampsOf, MOST_LAID_OUT, type Lamp, type PoseSearch, type StopsOf } from './lampPoses.ts';
import { FACE_BEARINGS, mostToward } from './sectors.ts';

/** Whether some pose, with any parts open together, leaves a face dark. */
export type PoseDark =
  | { readonly found: 'none' }
  /** With any one of these shut some lamp lights it. */
  | { readonly found: 'pose'; readonly open: readonly string[] }
  /** The search was given up. */
  | { readonly found: 'unknown' };

/**
 * Looks through every combination of stops for one in which no channel sends more than a limit toward a face. A lamp that
 * no pose can hide cuts all combinations off, and does so on almost every vehicle.
 *
 * @param aboveCd - what lights the face at some bearing, channel by channel, cd
 */
export function poseDark(
  build: Build,
  drives: readonly Drive[],
  face: Face,
  aboveCd: number,
  elevationDeg: number,
  { allowance = MOST_LAID_OUT, stopsOf = stopsWithShut }: PoseSearch = {},
): PoseDark {
  const lamps = lampsOf(build, drives, fieldsOf(build), elevationDeg);
  if (lamps.some(({ highestCd, least }) => highestCd * mostToward(least, face) > aboveCd))
    return { found: 'none' };
  const { parts } = lookupOf(build).vehicle;
  const search = new Search(lamps, parts, { face, aboveCd, allowance, stopsOf });
  const open = search.pose();
  if (open !== null) return { found: 'pose', open };
  return { found: search.givenUp ? 'unknown' : 'none' };
}

/** A lamp's light toward a face: by stop of its carrier what arrives, and by part and stop the share that passes; null for all. */
interface Toward {
  /** Index of its carrier among the parts; -1 on the body. */
  readonly carrier: number;
  readonly at: readonly {
    readonly cd: readonly number[];
    readonly passes: readonly (readonly (readonly number[] | null)[])[];
  }[];
}

class Search {
  readonly #parts: readonly MovingPart[];
  readonly #stops: readonly (readonly (PartPosition | null)[])[];
  readonly #toward: readonly Toward[];
  readonly #aboveCd: number;
  #left: number;

  constructor(
    lamps: readonly Lamp[],
    parts: readonly MovingPart[],
    of: {
      readonly face: Face;
      readonly aboveCd: number;
      readonly allowance: number;
      readonly stopsOf: StopsOf;
    },
  ) {
    const bearings = FACE_BEARINGS[of.face];
    this.#aboveCd = of.aboveCd;
    this.#left = of.allowance;
    this.#parts = parts;
    this.#stops = parts.map((part) => of.stopsOf(part));
    this.#toward = lamps.map((lamp) => {
      const carrier = parts.findIndex((part) => part === lamp.carrier);
      const at = (this.#stops[carrier] ?? [null]).map((place) => {
        const shades = lamp.shades(place);
        return {
          cd: bearings.map((b) => lamp.highestCd * (shades?.past[b] ?? 0)),
          passes: parts.map((part, j) =>
            (this.#stops[j] ?? []).map((stop) => {
              const share = part === lamp.carrier ? null : (shades?.ofPart(part, stop) ?? null);
              return share === null ? null : bearings.map((b) => share[b] ?? 0);
            }),
          ),
        };
      });
      return { carrier, at };
    });
  }

  get givenUp(): boolean {
    return this.#left < 0;
  }

  /** The stops of a pose in which all lamps leave the face dark, no more open than that takes; null when none was found. */
  pose(): readonly string[] | null {
    const pose: (number | null)[] = this.#parts.map(() => null);
    if (!this.#descend(pose, 0)) return null;
    for (const [j, stop] of pose.entries()) {
      if (stop === 0 || this.#stops[j]?.[0] !== null) continue;
      pose[j] = 0;
      if (!this.#mayBeDark(pose)) pose[j] = stop;
    }
    return this.#parts.flatMap((_, j) => this.#stops[j]?.[pose[j] ?? 0]?.id ?? []);
  }

  /** Sets the parts from the j-th on, as far open as they go first, until all is dark; leaves it in `pose`. */
  #descend(pose: (number | null)[], j: number): boolean {
    if (--this.#left < 0 || !this.#mayBeDark(pose)) return false;
    const stops = this.#stops[j];
    if (stops === undefined) return true;
    for (let stop = stops.length - 1; stop >= 0; stop--) {
      pose[j] = stop;
      if (this.#descend(pose, j + 1)) return true;
    }
    pose[j] = null;
    return false;
  }

  /** Whether no lamp is sure to light the face, some parts perhaps anywhere; just that none does, once all are set. */
  #mayBeDark(pose: readonly (number | null)[]): boolean {
    return this.#toward.every((lamp) => this.#leastCd(lamp, pose) <= this.#aboveCd);
  }

  /** What a lamp sends at its best bearing of the face, at each by the stops that leave least. */
  #leastCd({ carrier, at }: Toward, pose: readonly (number | null)[]): number {
    const place = pose[carrier] ?? null;
    const places = place === null ? at : at.slice(place, place + 1);
    const least = (at[0]?.cd ?? []).map((_, b) =>
      places.reduce((min, { cd, passes }) => {
        const left = passes.reduce((share, ofPart, j) => {
          const stop = pose[j] ?? null;
          const ways = stop === null ? ofPart : ofPart.slice(stop, stop + 1);
          return share * ways.reduce((lowest, way) => Math.min(lowest, way?.[b] ?? 1), 1);
        }, cd[b] ?? 0);
        return Math.min(min, left);
      }, Infinity),
    );
    return least.reduce((most, cd) => Math.max(most, cd), 0);
  }
}
