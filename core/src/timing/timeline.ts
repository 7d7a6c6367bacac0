import { levelAtTime, levelWithin, litMs, type Span } from './span.ts';
import type { Signal } from './signal.ts';

/** A channel as timing knows it: what it shows, over and over, on which clock. */
export interface ScheduledPattern {
  readonly channelId: string;
  /** Channels of one clock keep their phases; different clocks drift. */
  readonly clockId: string;
  readonly cycleMs: number;
  readonly spans: readonly Span[];
  readonly steady: boolean;
  /** It shows no more than this, but may show less: what would say when is too long to lay out. */
  readonly loose?: boolean;
}

/** Channels of one clock over the cycle common to them. */
export interface Timeline<C extends ScheduledPattern = ScheduledPattern> {
  readonly clockId: string;
  readonly cycleMs: number;
  readonly durationsMs: readonly number[];
  /** It meets another part of the same clock in some alignments only, or a channel of it may show less. */
  readonly linked: boolean;
  /** Levels of each channel as each piece begins and ends. */
  readonly channels: readonly {
    readonly drive: C;
    readonly start: Float64Array;
    readonly end: Float64Array;
  }[];
}

/** Greatest common divisor of two whole numbers. */
export const commonDivisor = (a: number, b: number): number => (b === 0 ? a : commonDivisor(b, a % b));

/** Least common multiple of whole numbers of milliseconds. */
export const commonCycleMs = (cycles: readonly number[]): number =>
  cycles.reduce((l, c) => (l / commonDivisor(l, c)) * c, 1);

/** A common cycle longer than this is not laid out, ms. */
const LONGEST_LAID_OUT_MS = 120_000;
/** Nor one with more edges than this. */
const MOST_EDGES = 20_000;

/**
 * One timeline per clock, in order of first appearance; steady channels have no phase and are left out.
 *
 * Channels whose common cycle would be too long are laid out in several parts, as if these drifted. Parts whose cycles
 * have no divisor in common do come through every alignment of whole milliseconds; others come through some, and are
 * marked as linked: what is the worst over all alignments is then a bound.
 */
export const timelinesOf = <C extends ScheduledPattern>(drives: readonly C[]): Timeline<C>[] =>
  clockParts(drives.filter((d) => !d.steady)).map((part) => timelineOf(part));

/** Channels of one clock whose common cycle can be laid out. */
export interface ClockPart<C extends ScheduledPattern> {
  readonly clockId: string;
  readonly members: readonly C[];
  readonly cycleMs: number;
  readonly linked: boolean;
}

/** The channels of each clock, in order of first appearance, in as few parts as can be laid out. */
export const clockParts = <C extends ScheduledPattern>(drives: readonly C[]): ClockPart<C>[] =>
  [...new Set(drives.map((d) => d.clockId))].flatMap((clockId) => {
    const parts = partsOf(drives.filter((d) => d.clockId === clockId)).map((members) => ({
      clockId,
      members,
      cycleMs: commonCycleMs(members.map((d) => d.cycleMs)),
    }));
    const linked = parts.some(
      (a, i) =>
        a.members.some((d) => d.loose === true) ||
        parts.some((b, k) => k > i && commonDivisor(a.cycleMs, b.cycleMs) > 1),
    );
    return parts.map((part) => ({ ...part, linked }));
  });

/** Channels of one clock shared out so that each part has a common cycle that can be laid out. */
function partsOf<C extends ScheduledPattern>(members: readonly C[]): C[][] {
  const cycles = [...new Set(members.map((d) => d.cycleMs))].toSorted((a, b) => a - b);
  const edgesIn = new Map(
    cycles.map((ms) => [
      ms,
      members.reduce((most, d) => (d.cycleMs === ms ? Math.max(most, 2 * d.spans.length) : most), 0),
    ]),
  );
  const parts: number[][] = [];
  for (const cycleMs of cycles) {
    const part = parts.find((others) => canLayOut([...others, cycleMs], edgesIn));
    if (part === undefined) parts.push([cycleMs]);
    else part.push(cycleMs);
  }
  return parts.map((part) => members.filter((d) => part.includes(d.cycleMs)));
}

function canLayOut(cycles: readonly number[], edgesIn: ReadonlyMap<number, number>): boolean {
  const common = commonCycleMs(cycles);
  if (common > LONGEST_LAID_OUT_MS) return false;
  return cycles.reduce((sum, ms) => sum + ((edgesIn.get(ms) ?? 0) * common) / ms, 0) <= MOST_EDGES;
}

/** Channels begun together, as if they were of one clock. */
function timelineOf<C extends ScheduledPattern>({ clockId, members, linked }: ClockPart<C>): Timeline<C> {
  const { cycleMs, durationsMs, levels } = layoutOf(members);
  return {
    clockId,
    cycleMs,
    linked,
    durationsMs,
    channels: members.flatMap((drive, i) => {
      const of = levels[i];
      return of === undefined ? [] : [{ drive, ...of }];
    }),
  };
}

/** Channels begun together, over the cycle common to them. */
interface Layout {
  readonly cycleMs: number;
  readonly durationsMs: readonly number[];
  /** By channel: its levels as each piece begins and ends. */
  readonly levels: readonly { readonly start: Float64Array; readonly end: Float64Array }[];
}

/** A channel never changes, and the same ones meet in many states: laid out once, and known by the first of them. */
const layouts = new WeakMap<ScheduledPattern, Map<string, Layout>>();
const numbers = new WeakMap<ScheduledPattern, number>();
let numbered = 0;

function numberOf(drive: ScheduledPattern): number {
  const number = numbers.get(drive) ?? numbered++;
  numbers.set(drive, number);
  return number;
}

function layoutOf(members: readonly ScheduledPattern[]): Layout {
  const [first] = members;
  if (first === undefined) return layOut(members);
  const ofFirst = layouts.get(first) ?? new Map<string, Layout>();
  layouts.set(first, ofFirst);
  const key = members.map(numberOf).join();
  const layout = ofFirst.get(key) ?? layOut(members);
  ofFirst.set(key, layout);
  return layout;
}

function layOut(members: readonly ScheduledPattern[]): Layout {
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
    cycleMs,
    durationsMs: starts.map((from, i) => (edges[i + 1] ?? cycleMs) - from),
    levels: members.map((drive) => ({
      start: Float64Array.from(starts, (ms) => levelAt(drive, ms)),
      end: Float64Array.from(starts, (ms, i) => levelBefore(drive, ms, edges[i + 1] ?? cycleMs)),
    })),
  };
}

/** Level of a channel at a time on its clock: 0 between spans; at an edge what comes after it. */
export const levelAt = (
  { spans, cycleMs }: Pick<ScheduledPattern, 'spans' | 'cycleMs'>,
  timeMs: number,
): number => levelAtTime(spans, cycleMs, timeMs);

/** Level just before the end of a piece that no edge cuts. */
function levelBefore({ spans, cycleMs }: ScheduledPattern, fromMs: number, toMs: number): number {
  const t = fromMs % cycleMs;
  const span = spans.find((s) => s.fromMs <= t && t < s.toMs);
  return span === undefined ? 0 : levelWithin(span, t + (toMs - fromMs));
}

/** Mean level of a channel over its cycle, 0 to 1. */
export const meanLevel = ({ spans, cycleMs }: Pick<ScheduledPattern, 'spans' | 'cycleMs'>): number =>
  litMs(spans) / cycleMs;

/** What one clock's channels send together, each of so much at level 1 (cd, or A); null when none of them is named. */
export function clockSignal(
  { cycleMs, durationsMs, channels }: Timeline,
  amountOf: ReadonlyMap<string, number>,
): Signal | null {
  const start = new Float64Array(durationsMs.length);
  const end = new Float64Array(durationsMs.length);
  let named = false;
  for (const channel of channels) {
    const amount = amountOf.get(channel.drive.channelId);
    if (amount === undefined) continue;
    named = true;
    for (let i = 0; i < start.length; i++) {
      start[i] = (start[i] ?? 0) + amount * (channel.start[i] ?? 0);
      end[i] = (end[i] ?? 0) + amount * (channel.end[i] ?? 0);
    }
  }
  return named ? { cycleMs, durationsMs, start, end } : null;
}
