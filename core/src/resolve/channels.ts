import { lensPasses, type ModuleSetup, type Placement } from '../design/placement.ts';
import type { Build, ChannelRef } from '../design/schema.ts';
import { functionAt, readOn, type ActiveFunction } from '../design/controls.ts';
import { speedOf } from '../design/cues.ts';
import { patternShown, type LightCue } from '../design/functions.ts';
import type { Fixture, FixtureKind } from '../fixture/types.ts';
import { bookOf } from '../timing/book.ts';
import { timeOf } from '../timing/clock.ts';
import { lineOf, type Cycle } from '../timing/pattern.ts';
import { atSpeed } from '../timing/recipes/speed.ts';
import { highestLevel, isSteady, shifted, type Slot } from '../timing/span.ts';
import { freeRunReason } from '../timing/step.ts';
import type { ScheduledPattern } from '../timing/timeline.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Colour } from '../words/colour.ts';
import { lookupOf } from './lookup.ts';

/** What one channel is given to do in a state. */
export interface Drive extends ScheduledPattern, ChannelRef {
  readonly colour: Colour;
  /** The function that drives it. */
  readonly on: ActiveFunction;
  readonly groupId: string | null;
  /** Why it runs free although it is in a group; null when it keeps the group's step or is in none. */
  readonly freeBecause: string | null;
  readonly patternId: string;
  /** The pattern's line that it shows, from 0. */
  readonly line: number;
  readonly slowestPerMinute: number;
  readonly fastestPerMinute: number;
  readonly pulsesAFlash: number;
  /** Its lamp is made to warn, and is lit to: scene, work and cabin lights are not, nor is a bar that lights an alley. */
  readonly warns: boolean;
  /** The vehicle says with it what it does: that it brakes, turns or goes back. */
  readonly signals: boolean;
  /** Peak intensity while on at span level 1, after dimming, before lens and body, cd. */
  readonly peakCd: number;
  /** Current while on at span level 1, after dimming, A. */
  readonly currentA: number;
  /** What its board says; empty where it shows no text. */
  readonly text: string;
}

/** A channel by one name, as a key. */
export const channelIdOf = ({ placementId, moduleId, slot }: ChannelRef): string =>
  `${placementId}/${moduleId}/${slot}`;

/** The channel alone, of what says more about it. */
export const channelOf = ({ placementId, moduleId, slot }: ChannelRef): ChannelRef => ({
  placementId,
  moduleId,
  slot,
});

/**
 * What a cue lets a module show on one colour slot, as if nothing else were on; null where the module has no such
 * colour, or it is ordered but not allowed here.
 */
export function driveOf(
  build: Build,
  p: Placement,
  m: ModuleSetup,
  from: {
    readonly on: ActiveFunction;
    readonly cue: LightCue;
    readonly ambient: Ambient;
    readonly level: number;
  },
  slot: Slot,
): Drive | null {
  const lookup = lookupOf(build);
  const { cue } = from;
  const fixture = lookup.fixture(p.fixtureId);
  const colour = m.colours[slot - 1];
  const output = colour === undefined ? undefined : lookup.outputs(fixture, m)[colour];
  if (colour === undefined || output === undefined || m.disabled.includes(colour)) return null;
  const patternId = patternShown(cue, from.ambient);
  const cycle = cycleFor(build, patternId, m.groupId);
  const own = cue.phases?.find((o) => o.placementId === p.id && o.moduleId === m.id) ?? m;
  const line = lineOf(cycle, own.phase, own.order);
  const base = requestedSlot(cue, m);
  const lit = (cycle.lines[line] ?? []).filter((s) => (s.slot ?? base) === slot);
  const group = build.timing.groups.find((g) => g.id === m.groupId);
  const offsetMs = m.groupId === null ? 0 : timeOf(build.timing.groups, m.groupId).offsetMs;
  const spans = shifted(lit, cycle.cycleMs, offsetMs + m.offsetMs);
  const freeBecause = group === undefined ? null : freeRunReason(fixture, group.clock);
  const { kind } = functionAt(build, readOn(from.on).id);
  return {
    channelId: channelIdOf({ placementId: p.id, moduleId: m.id, slot }),
    placementId: p.id,
    moduleId: m.id,
    slot,
    colour,
    on: from.on,
    groupId: m.groupId,
    clockId: clockOf(build, p, m, freeBecause !== null),
    freeBecause,
    patternId,
    line,
    cycleMs: cycle.cycleMs,
    spans,
    steady: isSteady(spans, cycle.cycleMs),
    slowestPerMinute: cycle.slowestPerMinute,
    fastestPerMinute: cycle.fastestPerMinute,
    pulsesAFlash: cycle.pulsesAFlash,
    // Light to work by, and what the vehicle signals, is no warning, whatever lamp burns for it.
    warns: isWarning(fixture) && kind !== 'light' && kind !== 'signal',
    signals: kind === 'signal',
    peakCd: output.peakCd * from.level * lensPasses(p, m, colour),
    currentA: output.currentA * from.level,
    text: fixture.showsText ? cue.text || p.text : '',
  };
}

/** Cycles by pattern and group; a build never changes. */
const cycles = new WeakMap<Build, Map<string, Cycle>>();

/** A pattern at the speed of a group. */
export function cycleFor(build: Build, patternId: string, groupId: string | null): Cycle {
  const ofBuild = cycles.get(build) ?? new Map<string, Cycle>();
  cycles.set(build, ofBuild);
  const key = `${patternId} ${groupId ?? ''}`;
  const cycle = ofBuild.get(key) ?? atSpeed(bookOf(build).cycle(patternId), speedOf(build, groupId));
  ofBuild.set(key, cycle);
  return cycle;
}

/** The colour slot of a module that a cue means; undefined where it has none. */
export function requestedSlot({ ink }: LightCue, { colours }: ModuleSetup): Slot | undefined {
  if (typeof ink === 'number') return ink;
  return SLOTS[colours.indexOf(ink)];
}

const SLOTS: readonly Slot[] = [1, 2, 3];

/** A head in no group runs module by module on clocks of its own; one that cannot follow its group, as a whole. */
function clockOf(build: Build, p: Placement, m: ModuleSetup, free: boolean): string {
  if (m.groupId === null) return `free:${p.id}/${m.id}`;
  return free ? `free:${p.id}` : timeOf(build.timing.groups, m.groupId).rootId;
}

/** Kinds of fixture made to see by, not to be seen. */
const LIGHTS_UP: ReadonlySet<FixtureKind> = new Set<FixtureKind>(['scene', 'work', 'cabin']);

/** Whether a fixture is made to warn; scene, work and cabin lights are not. */
export const isWarning = ({ kind }: Fixture): boolean => !LIGHTS_UP.has(kind);

/** Channels of one pattern at one speed flash in one rhythm. */
export const rhythmOf = ({ patternId, cycleMs }: Pick<Drive, 'patternId' | 'cycleMs'>): string =>
  `${patternId} ${cycleMs}`;

/** What a channel sends along its aim at the highest level of its spans, cd. */
export function highestCd(drive: Drive): number {
  const known = highest.get(drive) ?? highestLevel(drive.spans) * drive.peakCd;
  highest.set(drive, known);
  return known;
}

/** A channel at work never changes, and is asked at each bearing. */
const highest = new WeakMap<Drive, number>();
