import type { Build, StageIndex } from '@flarik/core/build/schema';
import type { Colour } from '@flarik/core/fixture/colour';
import { drivesOf, type Drive } from '@flarik/core/timing/drive';
import { flashFigures } from '@flarik/core/timing/flash';
import { patternOf } from '@flarik/core/timing/library';
import { commonCycleMs } from '@flarik/core/timing/timeline';

export interface ScoreBar {
  readonly fromMs: number;
  readonly toMs: number;
  readonly colours: readonly Colour[];
}

/** What some channels of a group show alike: one line of the score. */
export interface ScoreLine {
  readonly key: string;
  readonly name: string;
  readonly channels: number;
  readonly bars: readonly ScoreBar[];
}

export interface ScoreRow {
  readonly groupId: string | null;
  readonly name: string;
  /** Pattern figures in words, one for each pattern in the row. */
  readonly figures: string;
  readonly lines: readonly ScoreLine[];
}

export interface Score {
  /** The cycle common to all groups when they begin together, ms. */
  readonly cycleMs: number;
  readonly rows: readonly ScoreRow[];
}

/** A stretch of time, ms. */
export interface Stretch {
  readonly fromMs: number;
  readonly toMs: number;
}

/** The score of a stage over a stretch of time. Rows are groups; lines are phases or sweep steps. */
export function scoreOf(build: Build, stage: StageIndex, stretch: Stretch): Score {
  const drives = drivesOf(build, stage, 'day');
  const setups = new Map(
    build.placements.flatMap((p) => p.modules.map((m) => [`${p.id}/${m.id}`, m] as const)),
  );
  const lineName = (d: Drive): string => {
    const setup = setups.get(`${d.placementId}/${d.moduleId}`);
    if (d.steady) return 'Steady';
    return patternOf(d.patternId).kind === 'steps'
      ? `Step ${setup?.order ?? 1}`
      : `Phase ${setup?.phase ?? 'A'}`;
  };
  const groups: readonly { id: string | null; name: string }[] = [
    ...build.timing.groups,
    { id: null, name: 'In no group' },
  ];
  const rows = groups.flatMap(({ id, name }): ScoreRow[] => {
    const members = drives.filter((d) => d.groupId === id);
    if (members.length === 0) return [];
    const keyed = members.map((drive) => ({ drive, key: `${drive.patternId} ${lineName(drive)}` }));
    const keys = [...new Set(keyed.map(({ key }) => key))].toSorted((a, b) =>
      a.localeCompare(b, 'en', { numeric: true }),
    );
    const lines = keys.flatMap((key): ScoreLine[] => {
      const alike = keyed.filter((k) => k.key === key).map(({ drive }) => drive);
      const [first] = alike;
      if (first === undefined) return [];
      const colours = [...new Set(alike.map((d) => d.colour))];
      return [{ key, name: lineName(first), channels: alike.length, bars: barsOf(first, colours, stretch) }];
    });
    return [{ groupId: id, name, lines, figures: figuresOf(members) }];
  });
  return { cycleMs: commonCycleMs(drives.map((d) => d.cycleMs)), rows };
}

/** The on-times of a channel that fall into the stretch, cut to it. */
function barsOf(d: Drive, colours: readonly Colour[], { fromMs, toMs }: Stretch): ScoreBar[] {
  const firstCycle = Math.floor(fromMs / d.cycleMs);
  const cycles = Math.ceil(toMs / d.cycleMs) - firstCycle;
  return Array.from({ length: cycles }, (_, i) => (firstCycle + i) * d.cycleMs).flatMap((start) =>
    d.spans
      .map((s) => ({
        fromMs: Math.max(start + s.fromMs, fromMs),
        toMs: Math.min(start + s.toMs, toMs),
        colours,
      }))
      .filter((bar) => bar.fromMs < bar.toMs),
  );
}

function figuresOf(members: readonly Drive[]): string {
  const byPattern = new Map(members.map((d) => [d.patternId, d]));
  return [...byPattern.values()]
    .map((d) => {
      const f = flashFigures(d.spans, d.cycleMs);
      const { name } = patternOf(d.patternId);
      if (f.steady) return name;
      const pulses = f.pulsesPerCycle === 1 ? '1 pulse' : `${f.pulsesPerCycle} pulses`;
      return `${name}: ${Math.round(f.cyclesPerMinute * 10) / 10}/min, ${pulses}, ${Math.round(f.onShare * 100)} % on`;
    })
    .join('; ');
}
