import { thresholdLx } from '../coverage/range.ts';
import type { Approach } from '../design/approach.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { effective, highestOf, raised } from '../timing/signal.ts';
import { meanLevel } from '../timing/timeline.ts';
import type { Ambient } from '../words/ambient.ts';
import type { AmbientLevel, Weather } from '../words/weather.ts';
import { LightInTime } from './lightInTime.ts';
import { OBSERVERS, seenBy, type Observer } from './observer.ts';
import { lightsIn, type ModuleLight } from './source.ts';
import { metresPerSecond, overCrestM, stoppingM } from './stopping.ts';
import { moduleKey, surroundingsOf, SightLine, type SightScene } from './sightLine.ts';

/** Meteorological optical range of the air, m. */
export const OPTICAL_RANGE_M: Readonly<Record<Weather, number>> = {
  clear: 20_000,
  rain: 2000,
  haze: 1000,
  fog: 80,
};
/** Luminance that the eye looks against, cd/m². */
export const LUMINANCE_AROUND: Readonly<Record<AmbientLevel, number>> = { day: 10_000, dusk: 100, night: 1 };

/** An approach begins here and ends here, m from the vehicle's origin. */
export const FROM_M = 3000;
export const TO_M = 20;
/** Looked at every metre, and farther away at steps of this share of the distance: directions hardly change there. */
const STEP_M = 1;
const STEP_SHARE = 0.01;
const BISECTED_M = 0.1;
const STEPS_M: readonly number[] = stepsM();

function stepsM(): number[] {
  const steps = [TO_M];
  for (let near = TO_M; near < FROM_M;) {
    near = Math.min(FROM_M, near + Math.max(STEP_M, Math.floor(near * STEP_SHARE)));
    steps.push(near);
  }
  return steps;
}

/** Optical centres above this are upper, m. */
export const UPPER_M = 1.5;

/** Of the share that passes the optical range: a power of e costs a fraction of any other. */
const LOG_OF_RANGE = Math.log(0.05);

/** What one lamp adds to an approach: with it the vehicle is seen so much farther, m. */
export interface Gain {
  readonly placementId: string;
  readonly gainM: number;
}

/** How one observer fares. */
export interface Sighting {
  readonly observer: Observer;
  /** From here on the light is seen, down to the nearest looked at; 0 when it is not seen there, m. */
  readonly seenM: number;
  /** It is seen at the farthest looked at already: the margin is a lower bound. */
  readonly beyond: boolean;
  /** Time to spare over stopping before the vehicle, s. */
  readonly marginS: number;
}

/** What comes of an approach. */
export interface ApproachResult {
  readonly approach: Approach;
  readonly neededM: number;
  /** By the normal eye, then by those that see red or green poorly. */
  readonly sightings: readonly [Sighting, ...Sighting[]];
}

/** The light that arrives along the way, and what is needed to see it. */
export interface ApproachCurve {
  readonly thresholdLx: number;
  readonly points: readonly { readonly distanceM: number; readonly lx: number }[];
}

/** What a build sends along approaches in a state. */
export class Approaches {
  readonly #build: Build;
  readonly #state: State;
  readonly #around: SightScene;
  readonly #lights = new Map<Ambient, readonly ModuleLight[]>();
  readonly #onWays = new Map<string, LightOnWay>();

  /** @param state - what is on and open; the light around is each approach's own */
  constructor(build: Build, state: State) {
    this.#build = build;
    this.#state = state;
    this.#around = surroundingsOf(build, state.open);
  }

  /** How each observer fares; @param without - lamps that are taken off for once */
  result(approach: Approach, without: ReadonlySet<string> = new Set()): ApproachResult {
    const sighting = this.#sighting(approach, without);
    const [normal, ...others] = OBSERVERS;
    return {
      approach,
      neededM: neededFor(approach),
      sightings: [sighting(normal), ...others.map(sighting)],
    };
  }

  /** How some observers fare. */
  sightings(approach: Approach, observers: readonly Observer[]): Sighting[] {
    return observers.map(this.#sighting(approach, new Set()));
  }

  #sighting(approach: Approach, without: ReadonlySet<string>): (observer: Observer) => Sighting {
    const light = this.#light(approach, without);
    const neededM = neededFor(approach);
    return (observer) => {
      const seenM = light.seenM(observer);
      const marginS = (seenM - neededM) / metresPerSecond(approach.speedKmh);
      return { observer, seenM, beyond: seenM >= FROM_M, marginS };
    };
  }

  /** The effective illuminance along the way, for the normal eye. */
  curve(approach: Approach, points = 120): ApproachCurve {
    const light = this.#light(approach, new Set());
    const ratio = (FROM_M / TO_M) ** (1 / (points - 1));
    return {
      thresholdLx: light.needLx,
      points: Array.from({ length: points }, (_, i) => {
        const distanceM = TO_M * ratio ** i;
        return { distanceM, lx: light.effectiveLx(distanceM, 'normal') };
      }),
    };
  }

  /** How much farther each lamp lets the vehicle be seen, the most first; between two lamps it can be given up. */
  *gains(approach: Approach): Generator<number, Gain[]> {
    const whole = this.result(approach).sightings[0].seenM;
    const ids = [...new Set(this.#lightsFor(approach).map(({ placementId }) => placementId))];
    const gains: Gain[] = [];
    for (const placementId of ids) {
      const without = this.result(approach, new Set([placementId])).sightings[0].seenM;
      gains.push({ placementId, gainM: whole - without });
      yield gains.length / ids.length;
    }
    return gains.filter(({ gainM }) => gainM >= BISECTED_M).toSorted((a, b) => b.gainM - a.gainM);
  }

  #lightsFor({ around }: Approach): readonly ModuleLight[] {
    const ambient = ambientOf(around);
    const known = this.#lights.get(ambient) ?? lightsIn(this.#build, { ...this.#state, ambient });
    this.#lights.set(ambient, known);
    return known;
  }

  #light(approach: Approach, without: ReadonlySet<string>): LightAlong {
    const { bearingDeg, eyeM, colour, level, around } = approach;
    if (without.size > 0) return new LightAlong(this.#onWay(approach, without), approach);
    const key = [bearingDeg, eyeM, colour, level, ambientOf(around)].join(' ');
    const known = this.#onWays.get(key) ?? this.#onWay(approach, without);
    this.#onWays.set(key, known);
    return new LightAlong(known, approach);
  }

  #onWay(approach: Approach, without: ReadonlySet<string>): LightOnWay {
    const { ways, sights, placeOf } = this.#around;
    const key = `${approach.bearingDeg} ${approach.eyeM}`;
    const way = ways.get(key) ?? new SightLine(sights, approach.bearingDeg, approach.eyeM);
    ways.set(key, way);
    const lights = this.#lightsFor(approach).filter(({ placementId }) => !without.has(placementId));
    return new LightOnWay(lights, placeOf, way, approach);
  }
}

/** How far an approach needs to stop, m. */
export const neededFor = ({ speedKmh, gradePercent, weather }: Approach): number =>
  stoppingM(speedKmh, gradePercent, weather === 'rain');

const ambientOf = (around: AmbientLevel): Ambient => (around === 'night' ? 'night' : 'day');

/** Channels that flash, by their module and timeline: the mean of each, cd. */
interface Means {
  readonly modules: Int32Array;
  readonly timelines: Int32Array;
  readonly cds: Float64Array;
}

/** By module, for each lx per cd there: all at once, what burns steadily, and the mean by timeline. */
interface Bounds {
  readonly most: Float64Array;
  readonly steady: Float64Array;
  readonly means: Means;
}

/** Between what the effective light lies, lx. */
interface Between {
  /** No less: what burns steadily, with the greatest mean of a clock. */
  readonly least: number;
  /** No more: all at once. */
  readonly most: number;
}

/** The same in clear air by step, and between what distances the lamps are that send it, m; NaN where it is not known yet. */
interface InClearAir {
  readonly least: Float64Array;
  readonly most: Float64Array;
  readonly nearestM: Float64Array;
  readonly farthestM: Float64Array;
}

/** What counts for some approaches, along their way: alike in every air and against every sky. */
class LightOnWay {
  readonly light: LightInTime;
  /** Height of each module that counts, m. */
  readonly heightsM: readonly number[];
  readonly #way: SightLine;
  /** The places along the way of the modules that count. */
  readonly #modules: Int32Array;
  readonly #bounds = new Map<Observer, Bounds>();
  readonly #clear = new Map<Observer, InClearAir>();

  constructor(
    lights: readonly ModuleLight[],
    placeOf: ReadonlyMap<string, number>,
    way: SightLine,
    { colour, level }: Pick<Approach, 'colour' | 'level'>,
  ) {
    this.#way = way;
    const mine = lights.filter(
      ({ centre: [, , z], drives }) =>
        (level === 'any' || z > UPPER_M === (level === 'upper')) &&
        (colour === null || drives.some((drive) => drive.colour === colour)),
    );
    this.heightsM = mine.map(({ centre }) => centre[2]);
    this.#modules = Int32Array.from(mine, (light) => placeOf.get(moduleKey(light)) ?? -1);
    this.light = new LightInTime(mine, (drive) => colour === null || drive.colour === colour);
  }

  /**
   * By module that counts: lx at the eye for each candela, by Allard's law: E = I · 0.05^(r/V) / r².
   * @param hidden - whether a module is behind the crest there
   */
  perCd(distanceM: number, rangeM: number, hidden: (module: number) => boolean): Float64Array {
    const { per, away } = this.#way.at(distanceM, this.#modules);
    const made = new Float64Array(this.#modules.length);
    for (let m = 0; m < made.length; m++) {
      const place = this.#modules[m] ?? -1;
      const lx = per[place] ?? 0;
      if (lx > 0 && !hidden(m)) made[m] = lx * passing(away[place] ?? 0, rangeM);
    }
    return made;
  }

  /** The bounds of what arrives without a crest, known at a step. */
  inClearAir(step: number, observer: Observer): InClearAir {
    const known = this.#clear.get(observer) ?? {
      least: new Float64Array(STEPS_M.length),
      most: new Float64Array(STEPS_M.length).fill(NaN),
      nearestM: new Float64Array(STEPS_M.length),
      farthestM: new Float64Array(STEPS_M.length),
    };
    this.#clear.set(observer, known);
    if (!Number.isNaN(known.most[step])) return known;
    const { per, away } = this.#way.at(STEPS_M[step] ?? FROM_M, this.#modules);
    const mine = new Float64Array(this.#modules.length);
    let nearestM = Infinity;
    let farthestM = 0;
    for (let m = 0; m < mine.length; m++) {
      const place = this.#modules[m] ?? -1;
      const lx = per[place] ?? 0;
      const awayM = away[place] ?? 0;
      mine[m] = lx;
      if (lx > 0 && awayM < nearestM) nearestM = awayM;
      if (lx > 0 && awayM > farthestM) farthestM = awayM;
    }
    const { least, most } = this.between(mine, observer);
    known.least[step] = least;
    known.most[step] = most;
    known.nearestM[step] = nearestM;
    known.farthestM[step] = farthestM;
    return known;
  }

  /** @param per - by module that counts: lx at the eye for each candela */
  between(per: Float64Array, observer: Observer): Between {
    const bounds = this.#boundsOf(observer);
    let most = 0;
    let steady = 0;
    for (let m = 0; m < bounds.most.length; m++) {
      const lx = per[m] ?? 0;
      most += lx * (bounds.most[m] ?? 0);
      steady += lx * (bounds.steady[m] ?? 0);
    }
    // Windows may span any number of cycles: the effective light of a clock is never below its mean.
    const means = new Float64Array(this.light.timelines.length);
    const { modules, timelines, cds } = bounds.means;
    let greatest = 0;
    for (let i = 0; i < cds.length; i++) {
      const t = timelines[i] ?? 0;
      const mean = (means[t] ?? 0) + (per[modules[i] ?? 0] ?? 0) * (cds[i] ?? 0);
      means[t] = mean;
      if (mean > greatest) greatest = mean;
    }
    return { least: steady + greatest, most };
  }

  #boundsOf(observer: Observer): Bounds {
    const known = this.#bounds.get(observer);
    if (known !== undefined) return known;
    const size = this.#modules.length;
    const most = new Float64Array(size);
    const steady = new Float64Array(size);
    const flashing = new Map<number, { module: number; timeline: number; cd: number }>();
    for (const { drive, module, timeline } of this.light.counted) {
      const cd = drive.peakCd * seenBy(observer, drive.colour);
      most[module] = (most[module] ?? 0) + cd;
      if (timeline < 0) steady[module] = (steady[module] ?? 0) + cd;
      else {
        const key = module * this.light.timelines.length + timeline;
        const known = flashing.get(key) ?? { module, timeline, cd: 0 };
        flashing.set(key, known);
        known.cd += cd * meanLevel(drive);
      }
    }
    const together = [...flashing.values()];
    const means: Means = {
      modules: Int32Array.from(together, ({ module }) => module),
      timelines: Int32Array.from(together, ({ timeline }) => timeline),
      cds: Float64Array.from(together, ({ cd }) => cd),
    };
    const made = { most, steady, means };
    this.#bounds.set(observer, made);
    return made;
  }
}

/** The share of light that air lets pass over a distance. */
const passing = (awayM: number, rangeM: number): number => Math.exp((awayM / rangeM) * LOG_OF_RANGE);

/** What an approach must see, along its way, in its air. */
class LightAlong {
  readonly needLx: number;
  readonly #onWay: LightOnWay;
  readonly #rangeM: number;
  /** By module that counts: it is hidden by the crest from farther away than this, m; null without a crest. */
  readonly #overM: readonly number[] | null;
  readonly #arriving = new Map<number, Float64Array>();

  constructor(onWay: LightOnWay, { crest, eyeM, weather, around, noticing }: Approach) {
    this.#onWay = onWay;
    this.#rangeM = OPTICAL_RANGE_M[weather];
    this.needLx = noticing * thresholdLx(LUMINANCE_AROUND[around]);
    this.#overM =
      crest === null
        ? null
        : onWay.heightsM.map((z) => overCrestM(crest.lengthM, crest.changePercent, eyeM, z));
  }

  #perCd(distanceM: number): Float64Array {
    const known = this.#arriving.get(distanceM);
    if (known !== undefined) return known;
    const overM = this.#overM;
    const made = this.#onWay.perCd(
      distanceM,
      this.#rangeM,
      (module) => overM !== null && distanceM > (overM[module] ?? Infinity),
    );
    this.#arriving.set(distanceM, made);
    return made;
  }

  effectiveLx(distanceM: number, observer: Observer): number {
    return this.#onWay.light.effectiveLx(this.#perCd(distanceM), observer);
  }

  /** Whether it is seen at a step: bounds in clear air settle most of them. */
  #isSeenAt(step: number, observer: Observer): boolean {
    if (this.#overM === null) {
      const { least, most, nearestM, farthestM } = this.#onWay.inClearAir(step, observer);
      if ((most[step] ?? 0) * passing(nearestM[step] ?? 0, this.#rangeM) < this.needLx) return false;
      if ((least[step] ?? 0) * passing(farthestM[step] ?? 0, this.#rangeM) >= this.needLx) return true;
    }
    return this.#isSeen(STEPS_M[step] ?? FROM_M, observer);
  }

  #isSeen(distanceM: number, observer: Observer): boolean {
    const per = this.#perCd(distanceM);
    const { least, most } = this.#onWay.between(per, observer);
    if (most < this.needLx) return false;
    if (least >= this.needLx) return true;
    const { background, clocks } = this.#onWay.light.signals(per, observer);
    return (
      background >= this.needLx ||
      clocks.some(
        (w) => highestOf(w) + background >= this.needLx && effective(raised(w, background)) >= this.needLx,
      )
    );
  }

  /** From where on it is seen, coming nearer; 0 when it is not seen at the end of the way, m. */
  seenM(observer: Observer): number {
    if (!this.#isSeenAt(0, observer)) return 0;
    for (let step = 1; step < STEPS_M.length; step++)
      if (!this.#isSeenAt(step, observer))
        return this.#bisected(STEPS_M[step - 1] ?? TO_M, STEPS_M[step] ?? FROM_M, observer);
    return FROM_M;
  }

  #bisected(seen: number, unseen: number, observer: Observer): number {
    let [near, far] = [seen, unseen];
    while (far - near > BISECTED_M) {
      const middle = (near + far) / 2;
      if (this.#isSeen(middle, observer)) near = middle;
      else far = middle;
    }
    return near;
  }
}
