import { namedOns, effectsOf, type ActiveFunction } from '@flarik/core/design/controls';
import { targetName } from '@flarik/core/design/names';
import { showingOf } from '@flarik/core/resolve/showing';
import type { State } from '@flarik/core/state/state';
import { groupsOf } from '@flarik/core/design/cues';
import { patternShown, sameTarget, targetKey, type LightCue } from '@flarik/core/design/functions';
import type { Ambient } from '@flarik/core/words/ambient';
import { formatQuantity } from '@flarik/core/words/quantity';
import type { CuePlace } from '@flarik/core/design/patternEdits';
import type { Build } from '@flarik/core/design/schema';
import type { Colour } from '@flarik/core/words/colour';
import { bookOf } from '@flarik/core/timing/book';
import { timeOf } from '@flarik/core/timing/clock';
import type { Drive } from '@flarik/core/resolve/channels';
import { drivenIn } from '@flarik/core/state/driven';
import { flashFigures } from '@flarik/core/timing/flash';
import { lineName, PHASES, slotsOf, type Cycle, type Phase } from '@flarik/core/timing/pattern';
import { atSpeed, SAME_SPEED, speedNumber } from '@flarik/core/timing/recipes/speed';
import { endLevelOf, type Span } from '@flarik/core/timing/span';
import { cueRows, inkText, membersOf } from '$lib/pieces/members';

/** A bar of on-time in the score, repeated each cycle. */
export interface TimelineBar {
  /** Its place among the bars of its line. */
  readonly index: number;
  /** Which turn of the cycle it stands in; 0 begins at the group's own start. */
  readonly turn: number;
  readonly fromMs: number;
  readonly toMs: number;
  readonly level: number;
  readonly endLevel: number;
  readonly colours: readonly Colour[];
}

/** One channel of a line, opened up. */
export interface TimelineChannel {
  readonly channelId: string;
  readonly placementId: string;
  readonly moduleId: string;
  readonly name: string;
  readonly colour: Colour;
  readonly freeBecause: string | null;
  readonly bars: readonly TimelineBar[];
}

/** One line of a pattern: what the lamps of a phase, or of a place in the row, show. */
export interface TimelineLine {
  readonly line: number;
  readonly name: string;
  readonly bars: readonly TimelineBar[];
  readonly channels: readonly TimelineChannel[];
}

/** What a group shows on one of its cues. */
export interface TimelineRow {
  readonly key: string;
  readonly place: CuePlace;
  readonly name: string;
  readonly patternName: string;
  readonly own: boolean;
  readonly figures: string;
  /** As it plays: at the group's speed. */
  readonly cycle: Cycle;
  readonly speed: number;
  readonly offsetMs: number;
  readonly lines: readonly TimelineLine[];
}

/** A stretch of time, ms. */
export interface Stretch {
  readonly fromMs: number;
  readonly toMs: number;
}

export const keyOf = ({ on, target, ink }: CuePlace): string => `${on}/${targetKey(target)}/${ink}`;

/**
 * The rows of a function, in the order of the groups, as far as they fall into a stretch of time.
 * @param besides - functions that are on too, against which it shows what it does
 */
export function timelineOf(
  build: Build,
  on: ActiveFunction,
  ambient: Ambient,
  stretch: Stretch,
  besides: readonly ActiveFunction[] = [on],
): TimelineRow[] {
  const book = bookOf(build);
  const labels = new Map(build.placements.map((p) => [p.id, p.label]));
  const drives = drivenIn(build, { on: besides, ambient }).filter((d) => d.on === on);
  return cueRows(build).flatMap(({ target, name }) => {
    const cues = effectsOf(build, on)
      .cues.filter((cue) => cue.show === 'light')
      .filter((cue) => sameTarget(cue.target, target))
      .toSorted((a, b) => String(a.ink).localeCompare(String(b.ink)));
    const members = membersOf(build, target);
    const ids = new Set(members.map(({ placement, setup }) => `${placement.id}/${setup.id}`));
    // The modules of a set may run at the speeds of several groups; the row is drawn at that of the first.
    const [groupId = null] = groupsOf(build, target);
    return cues.map((cue): TimelineRow => {
      const place: CuePlace = { on, target, ink: cue.ink, ambient };
      const patternId = patternShown(cue, ambient);
      const time =
        groupId === null ? { speed: SAME_SPEED, offsetMs: 0 } : timeOf(build.timing.groups, groupId);
      const cycle = atSpeed(book.cycle(patternId), time.speed);
      const lit = drives.filter(
        (d) => ids.has(`${d.placementId}/${d.moduleId}`) && d.patternId === patternId && isOf(cue, cycle, d),
      );
      return {
        key: keyOf(place),
        place,
        name: cues.length > 1 ? `${name}, ${inkText(cue.ink)}` : name,
        patternName: book.pattern(patternId).name,
        own: book.own.some((p) => p.id === patternId),
        figures: figuresOf(cycle),
        cycle,
        speed: speedNumber(time.speed),
        offsetMs: time.offsetMs,
        lines: linesOf(cycle, cue, lit, time.offsetMs, stretch, labels),
      };
    });
  });
}

/** The rows of all that is on, the strongest function first: what each still lights against the others. */
export function timelineOfState(
  build: Build,
  { on, ambient }: Pick<State, 'on' | 'ambient'>,
  stretch: Stretch,
): TimelineRow[] {
  const names = new Map(namedOns(build).map((named) => [named.on, named.name]));
  return showingOf(build)
    .ranked(on)
    .flatMap((one) =>
      timelineOf(build, one, ambient, stretch, on)
        .filter((row) => row.lines.some((line) => line.channels.length > 0))
        .map((row) => ({ ...row, name: `${names.get(one) ?? one}: ${row.name}` })),
    );
}

/** What functions take away, in sentences: "Fog cancel takes white of Front". */
export const takenBy = (build: Build, ons: readonly ActiveFunction[]): string[] =>
  showingOf(build)
    .ranked(ons)
    .flatMap((on) =>
      effectsOf(build, on).cues.flatMap((cue) => {
        if (cue.show === 'light') return [];
        const what = cue.colours.length === 0 ? 'all light' : cue.colours.join(' and ');
        const who = namedOns(build).find((named) => named.on === on)?.name ?? 'deleted function';
        return [`${who} takes ${what} of ${targetName(build, cue.target)}`];
      }),
    );

/** Whether a channel shows this cue and not another of the same lamp. */
const isOf = ({ ink }: LightCue, cycle: Cycle, { colour, slot }: Drive): boolean =>
  typeof ink === 'string' ? colour === ink : slotsOf(cycle, ink).some((s) => s === slot);

function linesOf(
  cycle: Cycle,
  cue: LightCue,
  members: readonly Drive[],
  offsetMs: number,
  stretch: Stretch,
  labels: ReadonlyMap<string, string>,
): TimelineLine[] {
  return cycle.lines.map((spans, line) => {
    const mine = members.filter((d) => d.line === line);
    const coloursIn = (span: Span): Colour[] => {
      if (span.slot === undefined && typeof cue.ink === 'string') return [cue.ink];
      const slot = span.slot ?? cue.ink;
      return [...new Set(mine.filter((d) => d.slot === slot).map((d) => d.colour))];
    };
    return {
      line,
      name: lineName(cycle.by, line),
      bars: barsOf(spans, cycle.cycleMs, offsetMs, stretch, coloursIn),
      channels: mine.map((d) => ({
        channelId: d.channelId,
        placementId: d.placementId,
        moduleId: d.moduleId,
        name: labels.get(d.placementId) ?? 'deleted lamp',
        colour: d.colour,
        freeBecause: d.freeBecause,
        bars: barsOf(d.spans, d.cycleMs, 0, stretch, () => [d.colour]),
      })),
    };
  });
}

/** The bars that fall into a stretch, whole. */
function barsOf(
  spans: readonly Span[],
  cycleMs: number,
  offsetMs: number,
  { fromMs, toMs }: Stretch,
  coloursOf: (span: Span) => readonly Colour[],
): TimelineBar[] {
  const first = Math.floor((fromMs - offsetMs) / cycleMs);
  const last = Math.ceil((toMs - offsetMs) / cycleMs);
  const bars: TimelineBar[] = [];
  for (let turn = first; turn < last; turn++) {
    const base = offsetMs + turn * cycleMs;
    for (const [index, s] of spans.entries()) {
      const bar = { fromMs: base + s.fromMs, toMs: base + s.toMs };
      if (bar.toMs <= fromMs || bar.fromMs >= toMs) continue;
      bars.push({ index, turn, ...bar, level: s.level, endLevel: endLevelOf(s), colours: coloursOf(s) });
    }
  }
  return bars;
}

function figuresOf(cycle: Cycle): string {
  const f = flashFigures(cycle.lines[0] ?? [], cycle.cycleMs);
  if (f.steady) return 'steady';
  const rate = (perMinute: number): string => String(Math.round(perMinute * 10) / 10);
  const rates =
    cycle.slowestPerMinute === cycle.fastestPerMinute
      ? rate(cycle.slowestPerMinute)
      : `${rate(cycle.slowestPerMinute)} to ${rate(cycle.fastestPerMinute)}`;
  const pulses = f.pulsesPerCycle === 1 ? '1 pulse' : `${f.pulsesPerCycle} pulses`;
  return `${formatQuantity(cycle.cycleMs, 'ms')}, ${rates}/min, ${pulses}, ${Math.round(f.onShare * 100)} % on`;
}

/** How the clocks of a function stand to each other, in words. */
export function clocksText(drives: readonly Drive[], cycleMs: number): string {
  const flashing = drives.filter((d) => !d.steady);
  const clocks = new Set(flashing.map((d) => d.clockId)).size;
  if (flashing.length === 0) return 'steady only';
  return clocks === 1
    ? `one clock, common cycle ${formatQuantity(cycleMs, 'ms')}`
    : `${clocks} unsynchronised clocks: no common cycle (drawn from a common start, repeating every ${formatQuantity(cycleMs, 'ms')})`;
}

/** The next letter of a pattern with so many phases, beginning again with A. */
export const followingPhase = (phase: Phase, count: number): Phase =>
  PHASES[(PHASES.indexOf(phase) + 1) % Math.max(1, count)] ?? 'A';
