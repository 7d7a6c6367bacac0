import type { On } from '../design/controls.ts';
import type { TrafficSide } from '../design/site.ts';
import { bearingOf } from '../geometry/direction.ts';
import { dot, length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { HighestTogether } from '../resolve/highest.ts';
import { meanLevel } from '../timing/timeline.ts';
import type { LightAround } from '../words/weather.ts';
import type { ModuleLight, ModuleSight } from './source.ts';
import type { Station } from './stations.ts';

/** Angles between view and lamp that count: nearer counts as this, farther is left out, degrees (CIE 146). */
const NEAREST_DEG = 1.5;
const FARTHEST_DEG = 60;

/** Veiling luminance for each lux at the eye from an angle off the view: 10/θ² (Stiles and Holladay; CIE 146), cd/m². */
export const veilPerLux = (offDeg: number): number =>
  offDeg > FARTHEST_DEG ? 0 : 10 / Math.max(offDeg, NEAREST_DEG) ** 2;

/**
 * Threshold increment: how much more contrast an eye needs under a veil, %. 65 Lv/Lavg^0.8 to 5 cd/m², above that
 * 95 Lv/Lavg^1.05 (CIE 140).
 *
 * @param veil - veiling luminance, cd/m²
 * @param average - luminance that the eye is used to, cd/m²
 */
export const thresholdIncrement = (veil: number, average: number): number =>
  average <= 5 ? (65 * veil) / average ** 0.8 : (95 * veil) / average ** 1.05;

/** Luminance that an eye on the road is used to, cd/m². */
export const LUMINANCE_USED_TO: Readonly<Record<LightAround, number>> = { day: 3000, dusk: 10, night: 1 };

/** The glare that lamps give one eye. */
export interface Glare {
  /** Veiling luminance at the highest instant and as a mean over time, cd/m². */
  readonly highest: number;
  readonly mean: number;
  /** Illuminance at the eye, across each ray, at the highest instant, lx. */
  readonly eyeLx: number;
  /** Each lamp's share of the mean, the greatest first. */
  readonly byLamp: readonly { readonly placementId: string; readonly share: number }[];
}

/**
 * The glare at an eye that looks along a view: Lv = 10 Σ E/θ², E on the plane across the view (CIE 146). Where clocks drift
 * the highest instant is that in which all of them are at theirs.
 */
export function glareAt(lights: readonly ModuleLight[], { eye, view }: Pick<Station, 'eye' | 'view'>): Glare {
  const seen = lights.map((light) => ({ ...light, ...atEye(light, eye, view) }));
  const drives = seen.flatMap((one) => one.drives.map((drive) => ({ drive, ...one })));
  const together = new HighestTogether(drives.map(({ drive }) => drive));
  const highestOf = (per: (one: (typeof drives)[number]) => number): number =>
    together.of((at) => {
      const one = drives[at];
      return one === undefined ? 0 : per(one) * one.drive.peakCd;
    });
  const meanOf = ({ drive, veil }: (typeof drives)[number]): number => veil * drive.peakCd * meanLevel(drive);
  const mean = drives.reduce((sum, one) => sum + meanOf(one), 0);
  const byPlacement = new Map<string, number>();
  for (const one of drives)
    byPlacement.set(one.placementId, (byPlacement.get(one.placementId) ?? 0) + meanOf(one));
  return {
    highest: highestOf(({ veil }) => veil),
    mean,
    eyeLx: highestOf(({ lx }) => lx),
    byLamp: [...byPlacement]
      .filter(([, lv]) => lv > 0)
      .map(([placementId, lv]) => ({ placementId, share: lv / mean }))
      .toSorted((a, b) => b.share - a.share),
  };
}

/** What one function sends an eye, and by which lamps. */
export interface FunctionLight {
  readonly on: On;
  /** Illuminance at the eye, across each ray, at the highest instant of what it shows, lx. */
  readonly eyeLx: number;
  readonly byLamp: readonly {
    readonly placementId: string;
    readonly eyeLx: number;
    /** Where its first module that reaches the eye is seen. */
    readonly bearingDeg: number;
    readonly elevationDeg: number;
  }[];
}

/**
 * What reaches an eye straight from the lamps or through glass, wherever it looks, function by function, each as if it were
 * on alone; the most light first.
 */
export function eyeLightByFunction(
  lights: readonly ModuleLight[],
  station: Pick<Station, 'eye' | 'view'>,
): FunctionLight[] {
  const ons = new Set(lights.flatMap(({ drives }) => drives.map(({ on }) => on)));
  const byMost = (a: { readonly eyeLx: number }, b: { readonly eyeLx: number }): number => b.eyeLx - a.eyeLx;
  return [...ons]
    .map((on): FunctionLight => {
      const mine = lights.map(({ drives, ...light }) => ({
        ...light,
        drives: drives.filter((d) => d.on === on),
      }));
      const lamps = new Set(
        mine.filter(({ drives }) => drives.length > 0).map(({ placementId }) => placementId),
      );
      const eyeLxOf = (some: readonly ModuleLight[]): number => glareAt(some, station).eyeLx;
      return {
        on,
        eyeLx: eyeLxOf(mine),
        byLamp: [...lamps]
          .map((placementId) => {
            const own = mine.filter((light) => light.placementId === placementId);
            const seen = own.find((light) => eyeLxOf([light]) > 0)?.centre ?? station.eye;
            return { placementId, eyeLx: eyeLxOf(own), ...bearingOf(sub(seen, station.eye)) };
          })
          .filter(({ eyeLx }) => eyeLx > 0)
          .toSorted(byMost),
      };
    })
    .filter(({ eyeLx }) => eyeLx > 0)
    .toSorted(byMost);
}

/** What each candela of a module's peak gives an eye: veil, cd/m², and illuminance, lx. */
interface AtEye {
  readonly veil: number;
  readonly lx: number;
}
const known = new WeakMap<ModuleSight['shareToward'], Map<string, AtEye>>();

/** Worked out once for each module's place, pose and eye. */
function atEye({ centre, shareToward }: ModuleSight, eye: Vec3, view: Vec3): AtEye {
  const ofModule = known.get(shareToward) ?? new Map<string, AtEye>();
  known.set(shareToward, ofModule);
  const key = `${eye.join()}|${view.join()}`;
  const before = ofModule.get(key);
  if (before !== undefined) return before;
  const to = sub(eye, centre);
  const r = length(to);
  const direction = scale(to, 1 / r);
  const lx = r === 0 ? 0 : shareToward(direction, r) / r ** 2;
  const cos = -dot(direction, view);
  const offDeg = (Math.acos(Math.min(1, Math.max(-1, cos))) * 180) / Math.PI;
  const made = { veil: cos > 0 ? lx * cos * veilPerLux(offDeg) : 0, lx };
  ofModule.set(key, made);
  return made;
}

/** Eye of a driver on the road, m; the lane of who comes the other way lies so far aside. */
const ROAD_EYE_M = 1.2;
const LANE_M = 3.5;
const DISTANCES_M = Array.from({ length: 20 }, (_, i) => 10 * (i + 1));

/** Who drives toward the vehicle: the other way past it, or after it in its lane. */
export type Lane = 'oncoming' | 'following';

/** The eyes of somebody who drives toward the vehicle, every 10 m: where traffic keeps right, who comes the other way is on the left. */
export const eyesInLane = (
  lane: Lane,
  traffic: TrafficSide,
): (Pick<Station, 'eye' | 'view'> & { readonly distanceM: number })[] =>
  DISTANCES_M.map((distanceM) => ({
    distanceM,
    ...(lane === 'oncoming'
      ? {
          eye: [distanceM, traffic === 'right' ? LANE_M : -LANE_M, ROAD_EYE_M] as const,
          view: [-1, 0, 0] as const,
        }
      : { eye: [-distanceM, 0, ROAD_EYE_M] as const, view: [1, 0, 0] as const }),
  }));
