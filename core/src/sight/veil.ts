import { directionOf } from '../geometry/direction.ts';
import type { Solid } from '../geometry/solid.ts';
import { dot, sub, type Vec3 } from '../geometry/vec.ts';
import type { Drive } from '../resolve/channels.ts';
import { highestTogether } from '../resolve/highest.ts';
import { meanLevel } from '../timing/timeline.ts';
import type { LineSource, ModuleLight } from './source.ts';
import { wayOut } from './view.ts';

/** Extinction of air in which a black object is just seen at V: 5 % contrast (Koschmieder), 1/m. */
export const extinction = (opticalRangeM: number): number => -Math.log(0.05) / opticalRangeM;

/** Henyey and Greenstein (1941), normalised to 1 over the sphere. */
function lobe(g: number, cos: number): number {
  const spread = 1 + g ** 2 - 2 * g * cos;
  return (1 - g ** 2) / (4 * Math.PI * spread * Math.sqrt(spread));
}

/** How fog scatters: mostly ahead, a little back (a lidar ratio near that of water cloud), 1/sr. */
export const scattering = (cos: number): number => 0.935 * lobe(0.85, cos) + 0.065 * lobe(-0.6, cos);

/** The integral diverges on the lamp itself: nothing counts as nearer than this, m. */
const NEAREST_M = 0.1;
/** A view is followed to so many optical ranges; what lies beyond adds nothing. */
const RANGES = 5;
/** A step along a view is so short against the distance to the lamp. */
const STEP_SHARE = 0.2;
const SHORTEST_STEP_M = 0.01;

/** A lamp in fog. */
type ThrowingLamp = Pick<LineSource, 'centre' | 'cdOn'>;

/**
 * Light that one lamp throws back to an eye along a view through fog, by single scattering:
 * L = ∫ I(ω)/r² · e^{−σ(r+t)} · σ · p(cosψ) dt.
 *
 * @param view - unit vector
 * @param opticalRangeM - meteorological optical range V
 * @param endM - where the view meets the body or the ground
 * @returns cd/m²
 */
export function fogBackscatter(
  { centre, cdOn }: ThrowingLamp,
  eye: Vec3,
  view: Vec3,
  opticalRangeM: number,
  endM = Infinity,
): number {
  const sigma = extinction(opticalRangeM);
  const end = Math.min(endM, RANGES * opticalRangeM);
  const cdAt = cdOn(eye, view, true);
  // The lamp's foot on the view lies so far behind the eye; the square of the way to a point of the view follows from it.
  const from = sub(eye, centre);
  const behind = dot(from, view);
  const square = dot(from, from);
  const awayM = (t: number): number => Math.sqrt(Math.max(0, square + t * (2 * behind + t)));
  const at = (t: number): number => {
    const r = awayM(t);
    const near = r <= NEAREST_M;
    const direction: Vec3 = near
      ? view
      : [(from[0] + t * view[0]) / r, (from[1] + t * view[1]) / r, (from[2] + t * view[2]) / r];
    const farM = near ? NEAREST_M : r;
    const cd = cdAt(t, direction, farM);
    // The way of the light goes on along the ray from the lamp; the way to the eye runs against the view.
    return cd === 0
      ? 0
      : (cd / farM ** 2) * Math.exp(-sigma * (farM + t)) * sigma * scattering(-dot(direction, view));
  };
  let sum = 0;
  let before = at(0);
  for (let t = 0; t < end;) {
    const step = Math.min(Math.max(STEP_SHARE * Math.max(awayM(t), t / 4), SHORTEST_STEP_M), end - t);
    // Simpson's rule on each step.
    const after = at(t + step);
    sum += (step / 6) * (before + 4 * at(t + step / 2) + after);
    before = after;
    t += step;
  }
  return sum;
}

/** The eye looks so far to either side and up and down about straight ahead, by cells of so many degrees. */
const ASIDE_DEG = 10;
const UP_DEG = 5;
const CELL_DEG = 2.5;

/** The veil of one lamp, or of all. */
export interface Veil {
  /** Mean over the view ahead at the highest instant of all lamps together, drifting clocks each at theirs, cd/m². */
  readonly highest: number;
  /** As a mean over time, cd/m². */
  readonly mean: number;
}

export interface VeilResult extends Veil {
  /** White light alone, and all other: their highest instants need not be one. */
  readonly white: Veil;
  readonly withoutWhite: Veil;
  readonly byLamp: readonly (Veil & { readonly placementId: string })[];
}

/** What one channel throws back at level 1, cd/m². */
interface Thrown {
  readonly placementId: string;
  readonly drive: Drive;
  readonly atPeak: number;
}

/**
 * What lamps throw back from fog to an eye that looks straight ahead: the mean over ±10° aside and ±5° up, by the
 * middles of cells of 2.5°: within 0.5 % of cells of 0.5°. Views end at the body or the ground; glass on the way takes its share.
 */
export class FogVeil {
  readonly #shown: readonly Thrown[];

  constructor(lights: readonly ModuleLight[], solids: readonly Solid[], eye: Vec3, opticalRangeM: number) {
    this.#shown = lights.flatMap(({ placementId, centre, shareOn, drives }) => {
      const perPeak = perPeakOf(solids, { centre, cdOn: shareOn }, eye, opticalRangeM);
      return drives.map((drive) => ({ placementId, drive, atPeak: perPeak * drive.peakCd }));
    });
  }

  /** Of all lamps together at the highest instant, cd/m². */
  get highest(): number {
    return highestOf(this.#shown);
  }

  /** All of it, apart by colour and by lamp. */
  get result(): VeilResult {
    const veil = (counts: (one: Thrown) => boolean): Veil => {
      const shown = this.#shown.filter(counts);
      return {
        highest: highestOf(shown),
        mean: shown.reduce((sum, { drive, atPeak }) => sum + atPeak * meanLevel(drive), 0),
      };
    };
    return {
      ...veil(() => true),
      white: veil(({ drive }) => drive.colour === 'white'),
      withoutWhite: veil(({ drive }) => drive.colour !== 'white'),
      byLamp: [...new Set(this.#shown.map(({ placementId }) => placementId))]
        .map((placementId) => ({ placementId, ...veil((one) => one.placementId === placementId) }))
        .filter(({ highest }) => highest > 0)
        .toSorted((a, b) => b.highest - a.highest),
    };
  }
}

function highestOf(shown: readonly Thrown[]): number {
  return highestTogether(shown.map(({ drive }) => drive)).of((at) => shown[at]?.atPeak ?? 0);
}

/** What lamps throw back from fog to one eye. */
export const veilOf = (
  lights: readonly ModuleLight[],
  solids: readonly Solid[],
  eye: Vec3,
  opticalRangeM: number,
): VeilResult => new FogVeil(lights, solids, eye, opticalRangeM).result;

const thrown = new WeakMap<readonly Solid[], WeakMap<LineSource['cdOn'], Map<string, number>>>();

/** The veil for each candela of a lamp's peak: worked out once for each lamp's place, pose, eye and air. */
function perPeakOf(solids: readonly Solid[], lamp: ThrowingLamp, eye: Vec3, opticalRangeM: number): number {
  const byLamp = thrown.get(solids) ?? new WeakMap<LineSource['cdOn'], Map<string, number>>();
  thrown.set(solids, byLamp);
  const known = byLamp.get(lamp.cdOn) ?? new Map<string, number>();
  byLamp.set(lamp.cdOn, known);
  const key = `${eye.join()}|${opticalRangeM}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  const views = viewsFrom(solids, eye);
  const sum = views.reduce(
    (total, { view, endM, share }) => total + share * fogBackscatter(lamp, eye, view, opticalRangeM, endM),
    0,
  );
  known.set(key, sum / views.length);
  return sum / views.length;
}

interface ViewOut {
  readonly view: Vec3;
  readonly endM: number;
  readonly share: number;
}
const viewsKnown = new WeakMap<readonly Solid[], Map<string, readonly ViewOut[]>>();

/** The views of an eye past the body, each with where it ends. */
function viewsFrom(solids: readonly Solid[], eye: Vec3): readonly ViewOut[] {
  const known = viewsKnown.get(solids) ?? new Map<string, readonly ViewOut[]>();
  viewsKnown.set(solids, known);
  const before = known.get(eye.join());
  if (before !== undefined) return before;
  const made = viewsAhead().map((view) => ({ view, ...wayOut(solids, eye, view) }));
  known.set(eye.join(), made);
  return made;
}

function viewsAhead(): Vec3[] {
  const steps = (most: number) =>
    Array.from({ length: (2 * most) / CELL_DEG }, (_, i) => (i + 0.5) * CELL_DEG - most);
  return steps(UP_DEG).flatMap((up) => steps(ASIDE_DEG).map((aside) => directionOf(aside, up)));
}
