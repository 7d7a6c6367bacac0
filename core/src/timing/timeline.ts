import type { Drive } from '../resolve/channels.ts';
import { levelAtTime, levelWithin, litMs } from './span.ts';
import type { Waveform } from './signal.ts';

/** The channels of one clock over the cycle common to them. */
export interface Timeline {
  readonly clockId: string;
  readonly cycleMs: number;
  readonly durationsMs: readonly number[];
  /** Levels of each channel as each piece begins and ends. */
  readonly channels: readonly {
    readonly drive: Drive;
    readonly start: Float64Array;
    readonly end: Float64Array;
  }[];
}

/** Greatest common divisor of two whole numbers. */
export const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

/** Least common multiple of whole numbers of milliseconds. */
export const commonCycleMs = (cycles: readonly number[]): number =>
  cycles.reduce((l, c) => (l / commonDivisor(l, c)) * c, 1);

/** One timeline per clock, in order of first appearance; steady channels have no phase and are left out. */
export function timelinesOf(drives: readonly Drive[]): Timeline[] {
  const flashing = drives.filter((d) => !d.steady);
  return [...new Set(flashing.map((d) => d.clockId))].map((clockId) =>
    timelineOf(
      clockId,
      flashing.filter((d) => d.clockId === clockId),
    ),
  );
}

/** Channels begun together, as if they were of one clock. */
export function timelineOf(clockId: string, members: readonly Drive[]): Timeline {
  const cycleMs = commonCycleMs(members.map((d) => d.cycleMs));
  const cuts = new Set<number>([0, cycleMs]);
  for (const d of members) {
    for (let start = 0; start < cycleMs; start += d.cycleMs) {
      for (const s of d.spans) cuts.add(start + s.fromMs).add(start + s.toMs);
    }
  }
  const edges = [...cuts].toSorted((a, b) => a - b);
  const starts = edges.slice(0, -1);
  return {
    clockId,
    cycleMs,
    durationsMs: starts.map((from, i) => (edges[i + 1] ?? cycleMs) - from),
    channels: members.map((drive) => ({
      drive,
      start: Float64Array.from(starts, (ms) => levelAt(drive, ms)),
      end: Float64Array.from(starts, (ms, i) => levelBefore(drive, ms, edges[i + 1] ?? cycleMs)),
    })),
  };
}

/** Level of a channel at a time on its clock: 0 between spans; at an edge what comes after it. */
export const levelAt = ({ spans, cycleMs }: Pick<Drive, 'spans' | 'cycleMs'>, timeMs: number): number =>
  levelAtTime(spans, cycleMs, timeMs);

/** Level just before the end of a piece that no edge cuts. */
function levelBefore({ spans, cycleMs }: Drive, fromMs: number, toMs: number): number {
  const t = fromMs % cycleMs;
  const span = spans.find((s) => s.fromMs <= t && t < s.toMs);
  return span === undefined ? 0 : levelWithin(span, t + (toMs - fromMs));
}

/** Mean level of a channel over its cycle, 0 to 1. */
export const meanLevel = ({ spans, cycleMs }: Pick<Drive, 'spans' | 'cycleMs'>): number =>
  litMs(spans) / cycleMs;

/** The light of one clock's channels, each of so many candelas at level 1; null when none of them is seen. */
export function clockLight(
  { cycleMs, durationsMs, channels }: Timeline,
  cdOf: ReadonlyMap<string, number>,
): Waveform | null {
  const startCd = new Float64Array(durationsMs.length);
  const endCd = new Float64Array(durationsMs.length);
  let seen = false;
  for (const { drive, start, end } of channels) {
    const cd = cdOf.get(drive.channelId);
    if (cd === undefined) continue;
    seen = true;
    for (let i = 0; i < startCd.length; i++) {
      startCd[i] = (startCd[i] ?? 0) + cd * (start[i] ?? 0);
      endCd[i] = (endCd[i] ?? 0) + cd * (end[i] ?? 0);
    }
  }
  return seen ? { cycleMs, durationsMs, startCd, endCd } : null;
}
