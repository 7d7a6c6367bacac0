import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import type { Colour } from '../words/colour.ts';
import type { Drive } from '../resolve/channels.ts';
import { drivenIn } from '../state/driven.ts';
import { type Timeline, clockSignal, meanLevel, timelinesOf } from '../timing/timeline.ts';
import { flashEffective, raised, type Signal } from '../timing/signal.ts';
import { worstDarkMs, type DarkSearch, type Drifting } from '../timing/worst.ts';
import { BEARINGS } from './field.ts';
import { fieldsOf, type ModuleField } from './lampFields.ts';

/** Lamps by the height of their optical centre. */
export type LampHeight = 'upper' | 'lower' | 'any';

export interface RingOptions {
  readonly elevationDeg: number;
  /** Only channels of this colour; null takes all. */
  readonly colour: Colour | null;
  readonly level: LampHeight;
  /** Optical centres above this are upper, m. */
  readonly upperAboveM: number;
}

/** A channel at work, with the share of its peak that arrives by bearing. */
export interface LitChannel {
  readonly drive: Drive;
  readonly share: Float64Array;
}

/** The light around the vehicle, by whole bearings 0–359. */
export interface Ring {
  /** Guaranteed whatever the drift between clocks, cd. */
  readonly effectiveCd: Float64Array;
  /** cd·s/min. */
  readonly powerCdsPerMin: Float64Array;
}

/** The channels that light in a state, each with its field. */
export function litChannels(build: Build, state: State, options: RingOptions): LitChannel[] {
  const fields = fieldsOf(build);
  const placements = new Map(build.placements.map((p) => [p.id, p]));
  const known = new Map<string, readonly ModuleField[]>();
  return drivenIn(build, state).flatMap((drive): LitChannel[] => {
    const p = placements.get(drive.placementId);
    if (p === undefined || (options.colour !== null && drive.colour !== options.colour)) return [];
    const modules = known.get(p.id) ?? fields.of(p, state.open, options.elevationDeg);
    known.set(p.id, modules);
    const field = modules.find((f) => f.moduleId === drive.moduleId);
    if (field === undefined || !onLevel(field.heightM, options)) return [];
    return [{ drive, share: field.share }];
  });
}

function onLevel(heightM: number, { level, upperAboveM }: RingOptions): boolean {
  if (level === 'any') return true;
  return heightM > upperAboveM === (level === 'upper');
}

/** Placings tried at one bearing of a ring. */
const RING_PLACINGS = 400;
const ALL_ROUND: readonly number[] = Array.from({ length: BEARINGS }, (_, b) => b);

/** Intensity of a channel at span level 1 toward a bearing, cd. */
const cdAt = ({ drive, share }: LitChannel, bearing: number): number => drive.peakCd * (share[bearing] ?? 0);

/**
 * Optical power by bearing: the mean over every clock, so drift does not matter.
 * @returns cd·s/min
 */
export function powerRing(lit: readonly LitChannel[]): Float64Array {
  const power = new Float64Array(BEARINGS);
  for (const channel of lit) {
    const perMinute = 60 * meanLevel(channel.drive);
    for (let b = 0; b < BEARINGS; b++) power[b] = (power[b] ?? 0) + cdAt(channel, b) * perMinute;
  }
  return power;
}

/**
 * What is seen toward a bearing: the steady channels, and what each clock shows by itself.
 * @param timelines - of the same channels
 */
export function lightToward(
  lit: readonly LitChannel[],
  timelines: readonly Timeline[],
  bearing: number,
): Drifting {
  let background = 0;
  const cdOf = new Map<string, number>();
  for (const channel of lit) {
    const cd = cdAt(channel, bearing);
    if (channel.drive.steady) background += cd;
    else if (cd > 0) cdOf.set(channel.drive.channelId, cd);
  }
  const clocks = timelines.flatMap((timeline): Signal[] => {
    const w = clockSignal(timeline, cdOf);
    return w === null ? [] : [w];
  });
  return { background, clocks, linked: timelines.some((t) => t.linked) };
}

/**
 * Effective intensity and optical power by bearing. Where several clocks drift against each other the
 * effective intensity is what is guaranteed: the best that one clock with the steady lamps gives, or the mean
 * of all, whichever is more.
 */
export function ringOf(lit: readonly LitChannel[]): Ring {
  const powerCdsPerMin = powerRing(lit);
  const timelines = timelinesOf(lit.map((l) => l.drive));
  const effective = powerCdsPerMin.map((power, b) => {
    const { background, clocks } = lightToward(lit, timelines, b);
    return clocks.reduce(
      (best, w) => Math.max(best, flashEffective(raised(w, background))),
      Math.max(background, power / 60),
    );
  });
  return { effectiveCd: effective, powerCdsPerMin };
}

/** Longest dark gaps by bearing. */
export interface DarkGaps {
  /** Infinity where some alignment never reaches the threshold. */
  readonly ms: Float64Array;
  /** Whether that is the worst alignment itself; else no gap is longer, and all may be shorter. */
  readonly exact: readonly boolean[];
}

/**
 * Longest dark gap by bearing in the worst alignment of the clocks, or a bound where that is too much to find.
 *
 * @param bearings - those to look at; the others stay Infinity
 * @param search - how far alignments are looked through; no farther than is good for a ring when not said
 */
export function darkGapRing(
  lit: readonly LitChannel[],
  thresholdCd: number,
  bearings: Iterable<number> = ALL_ROUND,
  { placings = RING_PLACINGS, ...search }: DarkSearch = {},
): DarkGaps {
  const ms = new Float64Array(BEARINGS).fill(Infinity);
  const exact = ALL_ROUND.map(() => true);
  const timelines = timelinesOf(lit.map((l) => l.drive));
  for (const b of bearings) {
    const worst = worstDarkMs(lightToward(lit, timelines, b), thresholdCd, { ...search, placings });
    ms[b] = worst.value;
    exact[b] = worst.exact;
  }
  return { ms, exact };
}
