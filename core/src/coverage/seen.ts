import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { COLOURS, type Colour } from '../words/colour.ts';
import { drivenIn } from '../state/driven.ts';
import { commonCycleMs, timelinesOf } from '../timing/timeline.ts';
import {
  darkGaps,
  effective,
  longestDarkMs,
  opticalPower,
  readerOf,
  type Gap,
  type SignalSegment,
  type Signal,
} from '../timing/signal.ts';
import {
  highestTogether,
  leastEffective,
  together,
  worstDarkMs,
  type Drifting,
  type OverAlignments,
} from '../timing/worst.ts';
import { fieldsOf } from './lampFields.ts';
import { lightToward, type LitChannel } from './ring.ts';

/** Cycles in common beyond this are not laid out, ms. */
const LONGEST_COMMON_MS = 120_000;

export interface Direction {
  readonly bearingDeg: number;
  readonly elevationDeg: number;
}

/** One clock's share of what is seen from a direction. */
export interface ClockSeen {
  readonly clockId: string;
  readonly waveform: Signal;
}

/** One colour's share, clock by clock. */
export interface ColourSeen {
  readonly colour: Colour;
  readonly light: Drifting;
}

/** The figures of a light whose clocks all begin together. */
export interface SeenTogether {
  readonly waveform: Signal;
  readonly effectiveCd: number;
  readonly longestDarkMs: number;
  readonly gaps: readonly Gap[];
}

/** What is seen of a vehicle from one direction, far away. */
export interface Seen {
  /** Light of the steady channels, cd. */
  readonly steadyCd: number;
  readonly clocks: readonly ClockSeen[];
  readonly colours: readonly ColourSeen[];
  readonly powerCdsPerMin: number;
  /** Null when the clocks' common cycle is longer than two minutes. */
  readonly together: SeenTogether | null;
  /** Over every alignment of the clocks. */
  readonly worst: {
    readonly highestCd: OverAlignments;
    readonly dark: OverAlignments;
    readonly effective: OverAlignments;
  };
}

/** The channels that light in a state, each with its share toward one direction as its only bearing. */
export function intensityToward(
  build: Build,
  state: State,
  { bearingDeg, elevationDeg }: Direction,
): LitChannel[] {
  const fields = fieldsOf(build);
  const drives = drivenIn(build, state);
  return build.placements.flatMap((p) => {
    const mine = drives.filter((d) => d.placementId === p.id);
    if (mine.length === 0) return [];
    const shares = fields.toward(p, state.open, bearingDeg, elevationDeg);
    return mine.map((drive) => ({ drive, share: Float64Array.of(shares.get(drive.moduleId) ?? 0) }));
  });
}

/** What is seen from a direction, whole and by colour. */
export interface LightSeen {
  readonly whole: Drifting;
  readonly clocks: readonly ClockSeen[];
  readonly colours: readonly ColourSeen[];
}

/** @param colour - only channels of this colour; null takes all */
export function lightSeen(
  build: Build,
  state: State,
  direction: Direction,
  colour: Colour | null = null,
): LightSeen {
  const lit = intensityToward(build, state, direction).filter(
    ({ drive, share }) => (colour === null || drive.colour === colour) && (share[0] ?? 0) > 0,
  );
  const timelines = timelinesOf(lit.map((l) => l.drive));
  return {
    whole: lightToward(lit, timelines, 0),
    clocks: timelines.flatMap((timeline) =>
      lightToward(lit, [timeline], 0).clocks.map((waveform) => ({ clockId: timeline.clockId, waveform })),
    ),
    colours: COLOURS.flatMap((c): ColourSeen[] => {
      const mine = lit.filter(({ drive }) => drive.colour === c);
      return mine.length === 0 ? [] : [{ colour: c, light: lightToward(mine, timelines, 0) }];
    }),
  };
}

/**
 * What is seen from a direction, exact.
 * @param thresholdCd - below this it counts as dark
 * @param colour - only channels of this colour; null takes all
 */
export function seenFrom(
  build: Build,
  state: State,
  direction: Direction,
  thresholdCd: number,
  colour: Colour | null = null,
): Seen {
  const { whole: light, clocks, colours } = lightSeen(build, state, direction, colour);
  const common = commonCycleMs(light.clocks.map((w) => w.cycleMs));
  const whole = common > LONGEST_COMMON_MS ? null : allTogether(light);
  return {
    steadyCd: light.background,
    clocks,
    colours,
    powerCdsPerMin: light.clocks.reduce((sum, w) => sum + opticalPower(w), light.background * 60),
    together:
      whole === null
        ? null
        : {
            waveform: whole,
            effectiveCd: effective(whole),
            longestDarkMs: longestDarkMs(whole, thresholdCd),
            gaps: darkGaps(whole, thresholdCd),
          },
    worst: {
      highestCd: highestTogether(light),
      dark: worstDarkMs(light, thresholdCd),
      effective: leastEffective(light),
    },
  };
}

/** All clocks begun together. */
export function allTogether({ background, clocks }: Drifting): Signal {
  const steady: Signal = {
    cycleMs: clocks[0]?.cycleMs ?? 1000,
    durationsMs: [clocks[0]?.cycleMs ?? 1000],
    start: [background],
    end: [background],
  };
  return clocks.reduce((sum, w) => together(sum, w, 0), steady);
}

/** A light in a stretch of time, its clocks begun together at 0: as it is drawn. */
export function piecesBetween(
  { background, clocks }: Drifting,
  fromMs: number,
  toMs: number,
): SignalSegment[] {
  const cuts = new Set<number>([fromMs, toMs]);
  for (const { cycleMs, durationsMs } of clocks)
    for (let edge = Math.floor(fromMs / cycleMs) * cycleMs; edge < toMs;)
      for (const ms of durationsMs) {
        if (edge > fromMs && edge < toMs) cuts.add(edge);
        edge += ms;
      }
  const readers = clocks.map((w) => readerOf(w));
  const edges = [...cuts].toSorted((a, b) => a - b);
  return edges.slice(0, -1).map((from, i) => {
    const to = edges[i + 1] ?? toMs;
    let start = background;
    let end = background;
    for (const read of readers) {
      const [first, last] = read(from, to);
      start += first;
      end += last;
    }
    return { fromMs: from, toMs: to, start, end };
  });
}
