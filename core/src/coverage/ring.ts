import { lookupOf } from '../build/lookup.ts';
import type { Build } from '../build/schema.ts';
import type { State } from '../build/state.ts';
import type { Colour } from '../fixture/colour.ts';
import { drivesOf, type Drive } from '../timing/drive.ts';
import { meanLevel, timelinesOf, type Timeline } from '../timing/timeline.ts';
import { effectiveCd, longestDarkMs, type Waveform } from '../timing/waveform.ts';
import { BEARINGS, fieldsOf, type ModuleField } from './field.ts';

/** Lamps by the height of their optical centre. */
export type Level = 'upper' | 'lower' | 'any';

export interface RingOptions {
  readonly elevationDeg: number;
  /** Only channels of this colour; null takes all. */
  readonly colour: Colour | null;
  readonly level: Level;
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
  const fields = fieldsOf(lookupOf(build));
  const placements = new Map(build.placements.map((p) => [p.id, p]));
  const known = new Map<string, readonly ModuleField[]>();
  return drivesOf(build, state.stage, state.ambient).flatMap((drive): LitChannel[] => {
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
 * What each clock alone, with the steady channels behind it, shows toward a bearing. The light of all clocks
 * together is never below any of these, however they drift.
 */
function* clockWaveforms(
  lit: readonly LitChannel[],
  timelines: readonly Timeline[],
  bearings: Iterable<number>,
): Generator<[number, Waveform]> {
  const byChannel = new Map(lit.map((channel) => [channel.drive.channelId, channel]));
  const steady = lit.filter((channel) => channel.drive.steady);
  for (const b of bearings) {
    const background = steady.reduce((sum, channel) => sum + cdAt(channel, b), 0);
    if (background > 0) yield [b, { cycleMs: 1000, durationsMs: [1000], intensitiesCd: [background] }];
    for (const { cycleMs, durationsMs, channels } of timelines) {
      const intensitiesCd = new Float64Array(durationsMs.length).fill(background);
      let seen = false;
      for (const { drive, levels } of channels) {
        const channel = byChannel.get(drive.channelId);
        const cd = channel === undefined ? 0 : cdAt(channel, b);
        if (cd === 0) continue;
        seen = true;
        for (let i = 0; i < levels.length; i++)
          intensitiesCd[i] = (intensitiesCd[i] ?? 0) + cd * (levels[i] ?? 0);
      }
      if (seen) yield [b, { cycleMs, durationsMs, intensitiesCd }];
    }
  }
}

/**
 * Effective intensity and optical power by bearing. Where several clocks drift against each other the
 * effective intensity is what is guaranteed: the best that one clock with the steady lamps gives, or the mean
 * of all, whichever is more.
 */
export function ringOf(lit: readonly LitChannel[]): Ring {
  const powerCdsPerMin = powerRing(lit);
  const effective = Float64Array.from(powerCdsPerMin, (power) => power / 60);
  for (const [b, waveform] of clockWaveforms(lit, timelinesOf(lit.map((l) => l.drive)), ALL_ROUND))
    effective[b] = Math.max(effective[b] ?? 0, effectiveCd(waveform));
  return { effectiveCd: effective, powerCdsPerMin };
}

/**
 * Longest dark gap by bearing, at most: no drift between clocks makes it longer than the best clock's own.
 *
 * @param bearings - those to look at; the others stay Infinity
 * @returns ms; Infinity where no clock ever reaches the threshold by itself
 */
export function darkGapRing(
  lit: readonly LitChannel[],
  thresholdCd: number,
  bearings: Iterable<number> = ALL_ROUND,
): Float64Array {
  const gaps = new Float64Array(BEARINGS).fill(Infinity);
  for (const [b, waveform] of clockWaveforms(lit, timelinesOf(lit.map((l) => l.drive)), bearings))
    gaps[b] = Math.min(gaps[b] ?? Infinity, longestDarkMs(waveform, thresholdCd));
  return gaps;
}
