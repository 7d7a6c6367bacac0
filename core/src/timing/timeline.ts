import type { Drive } from './drive.ts';

/** The channels of one clock over the cycle common to them. */
export interface Timeline {
  readonly clockId: string;
  readonly cycleMs: number;
  readonly durationsMs: readonly number[];
  readonly channels: readonly { readonly drive: Drive; readonly levels: Float64Array }[];
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/** Least common multiple of whole numbers of milliseconds. */
export const commonCycleMs = (cycles: readonly number[]): number =>
  cycles.reduce((l, c) => (l / gcd(l, c)) * c, 1);

/** One timeline per clock, in order of first appearance; steady channels have no phase and are left out. */
export function timelinesOf(drives: readonly Drive[]): Timeline[] {
  const flashing = drives.filter((d) => !d.steady);
  return [...new Set(flashing.map((d) => d.clockId))].map((clockId) => {
    const members = flashing.filter((d) => d.clockId === clockId);
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
        levels: Float64Array.from(starts, (ms) => levelAt(drive, ms)),
      })),
    };
  });
}

/** Level of a channel at a time on its clock: 0 between spans. */
export function levelAt({ spans, cycleMs }: Drive, timeMs: number): number {
  const t = timeMs % cycleMs;
  return spans.find((s) => s.fromMs <= t && t < s.toMs)?.level ?? 0;
}

/** Mean level of a channel over its cycle, 0 to 1. */
export const meanLevel = ({ spans, cycleMs }: Drive): number =>
  spans.reduce((sum, s) => sum + s.level * (s.toMs - s.fromMs), 0) / cycleMs;
