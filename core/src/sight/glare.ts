import type { ActiveFunction } from '../design/controls.ts';
import type { TrafficSide } from '../design/site.ts';
import { bearingOf } from '../geometry/direction.ts';
import { dot, length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import type { Drive } from '../resolve/channels.ts';
import { highestTogether, type HighestTogether } from '../resolve/highest.ts';
import { meanLevel } from '../timing/timeline.ts';
import type { AmbientLevel } from '../words/weather.ts';
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
export const ADAPTATION_LUMINANCE: Readonly<Record<AmbientLevel, number>> = { day: 3000, dusk: 10, night: 1 };

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

/** An eye, and where it looks. */
type Looking = Pick<Station, 'eye' | 'view'>;

/** The glare of lamps at many eyes: when they burn together is laid out once for all of them. */
export class Glares {
  readonly #drives: readonly (ModuleLight & { readonly drive: Drive })[];
  readonly #together: HighestTogether;

  constructor(lights: readonly ModuleLight[]) {
    this.#drives = lights.flatMap((light) => light.drives.map((drive) => ({ ...light, drive })));
    this.#together = highestTogether(this.#drives.map(({ drive }) => drive));
  }

  /**
   * Veiling luminance at the highest instant: Lv = 10 Σ E/θ², E on the plane across the view (CIE 146), cd/m². Where clocks
   * drift the highest instant is that in which all of them are at theirs.
   */
  highestVeil(at: Looking): number {
    return this.#highest(at, 'veil');
  }

  /** Illuminance at the eye, across each ray, at the highest instant, lx. */
  highestLx(at: Looking): number {
    return this.#highest(at, 'lx');
  }

  /** All of it. */
  at(looking: Looking): Glare {
    const means = this.#drives.map((one) => ({
      placementId: one.placementId,
      mean: atEye(one, looking.eye, looking.view).veil * one.drive.peakCd * meanLevel(one.drive),
    }));
    const mean = means.reduce((sum, one) => sum + one.mean, 0);
    const byPlacement = new Map<string, number>();
    for (const one of means)
      byPlacement.set(one.placementId, (byPlacement.get(one.placementId) ?? 0) + one.mean);
    return {
      highest: this.highestVeil(looking),
      mean,
      eyeLx: this.highestLx(looking),
      byLamp: [...byPlacement]
        .filter(([, lv]) => lv > 0)
        .map(([placementId, lv]) => ({ placementId, share: lv / mean }))
        .toSorted((a, b) => b.share - a.share),
    };
  }

  #highest({ eye, view }: Looking, what: keyof AtEye): number {
    return this.#together.of((at) => {
      const one = this.#drives[at];
      return one === undefined ? 0 : atEye(one, eye, view)[what] * one.drive.peakCd;
    });
  }
}

/** The glare at one eye that looks along a view. */
export const glareAt = (lights: readonly ModuleLight[], looking: Looking): Glare =>
  new Glares(lights).at(looking);

/** What one function sends an eye, and by which lamps. */
export interface FunctionLight {
  readonly on: ActiveFunction;
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
export function eyeLightByFunction(lights: readonly ModuleLight[], station: Looking): FunctionLight[] {
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
      const eyeLxOf = (some: readonly ModuleLight[]): number => new Glares(some).highestLx(station);
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
/** Eyes asked again and again are the same objects: their name is made once. */
const eyeKeys = new WeakMap<Vec3, WeakMap<Vec3, string>>();

function eyeKey(eye: Vec3, view: Vec3): string {
  const ofEye = eyeKeys.get(eye) ?? new WeakMap<Vec3, string>();
  eyeKeys.set(eye, ofEye);
  const key = ofEye.get(view) ?? `${eye.join()}|${view.join()}`;
  ofEye.set(view, key);
  return key;
}

/** Worked out once for each module's place, pose and eye. */
function atEye({ centre, shareToward }: ModuleSight, eye: Vec3, view: Vec3): AtEye {
  const ofModule = known.get(shareToward) ?? new Map<string, AtEye>();
  known.set(shareToward, ofModule);
  const key = eyeKey(eye, view);
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

/**
 * The eyes of somebody who drives toward the vehicle, every 10 m: where traffic keeps right, who comes the other way is on the
 * left. The same list each time.
 */
export const eyesInLane = (lane: Lane, traffic: TrafficSide): readonly LaneEye[] => LANE_EYES[lane][traffic];

type LaneEye = Looking & { readonly distanceM: number };

const oncoming = (leftM: number): LaneEye[] =>
  DISTANCES_M.map((distanceM) => ({ distanceM, eye: [distanceM, leftM, ROAD_EYE_M], view: [-1, 0, 0] }));
const FOLLOWING = DISTANCES_M.map((distanceM): LaneEye => ({
  distanceM,
  eye: [-distanceM, 0, ROAD_EYE_M],
  view: [1, 0, 0],
}));
const LANE_EYES: Readonly<Record<Lane, Readonly<Record<TrafficSide, readonly LaneEye[]>>>> = {
  oncoming: { right: oncoming(LANE_M), left: oncoming(-LANE_M) },
  following: { right: FOLLOWING, left: FOLLOWING },
};
