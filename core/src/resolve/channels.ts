import type { ModuleSetup, Placement } from '../design/placement.ts';
import type { Build, ChannelRef } from '../design/schema.ts';
import { patternShown, stageAt, type Cue, type StageIndex } from '../design/timing.ts';
import type { Fixture, FixtureKind } from '../fixture/types.ts';
import { bookOf } from '../timing/book.ts';
import { timeOf } from '../timing/clock.ts';
import { lineOf, slotsOf, type Cycle } from '../timing/pattern.ts';
import { atSpeed, SAME_SPEED } from '../timing/recipes/speed.ts';
import { highestLevel, isSteady, shifted, type Slot } from '../timing/span.ts';
import { whyFree } from '../timing/step.ts';
import type { Played } from '../timing/timeline.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Colour } from '../words/colour.ts';
import { lookupOf, type Lookup } from './lookup.ts';
import { takingTurns } from './turns.ts';

/** What one channel is given to do in a state. */
export interface Drive extends Played, ChannelRef {
  readonly colour: Colour;
  readonly groupId: string | null;
  /** Why it runs free although it is in a group; null when it keeps the group's step or is in none. */
  readonly freeBecause: string | null;
  readonly patternId: string;
  /** The pattern's line that it shows, from 0. */
  readonly line: number;
  readonly slowestPerMinute: number;
  readonly fastestPerMinute: number;
  readonly pulsesAFlash: number;
  /** Its lamp is made to warn; scene, work and cabin lights are not. */
  readonly warns: boolean;
  /** Peak intensity while on at span level 1, after dimming, before lens and body, cd. */
  readonly peakCd: number;
  /** Current while on at span level 1, after dimming, A. */
  readonly currentA: number;
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

/** A cue with its cycle at the group's speed. */
interface Playing {
  readonly cue: Cue;
  readonly cycle: Cycle;
  readonly patternId: string;
  readonly offsetMs: number;
  readonly slots: readonly Slot[];
}

/** Every channel that a stage lights, in document order. */
export function channelsOf(build: Build, stageIndex: StageIndex, ambient: Ambient): readonly Drive[] {
  const stage = stageAt(build, stageIndex);
  const dim = ambient === 'night' ? stage.nightLevel : 1;
  const lookup = lookupOf(build);
  const playing = stage.cues.map((cue): Playing => playCue(build, cue, ambient));
  return build.placements.flatMap((p) => {
    if (p.status === 'removed' || p.status === 'planned') return [];
    const { coloursAtOnce } = lookup.fixture(p.fixtureId);
    return p.modules.flatMap((m) =>
      takingTurns(
        playing
          .filter(({ cue }) => cue.groupId === m.groupId)
          .flatMap((play) => play.slots.flatMap((slot) => driveOf(build, lookup, p, m, play, slot, dim))),
        coloursAtOnce,
      ),
    );
  });
}

function playCue(build: Build, cue: Cue, ambient: Ambient): Playing {
  const patternId = patternShown(cue, ambient);
  const time = cue.groupId === null ? null : timeOf(build.timing.groups, cue.groupId);
  const cycle = atSpeed(bookOf(build).cycle(patternId), time?.speed ?? SAME_SPEED);
  return { cue, cycle, patternId, offsetMs: time?.offsetMs ?? 0, slots: slotsOf(cycle, cue.slot) };
}

function driveOf(
  build: Build,
  lookup: Lookup,
  p: Placement,
  m: ModuleSetup,
  { cue, cycle, patternId, offsetMs }: Playing,
  slot: Slot,
  dim: number,
): Drive[] {
  const fixture = lookup.fixture(p.fixtureId);
  const colour = m.colours[slot - 1];
  const output = colour === undefined ? undefined : lookup.outputs(fixture, m)[colour];
  if (colour === undefined || output === undefined) return [];
  const line = lineOf(cycle, m.phase, m.order);
  const own = (cycle.lines[line] ?? []).filter((s) => (s.slot ?? cue.slot) === slot);
  const spans = shifted(own, cycle.cycleMs, offsetMs + m.offsetMs);
  const group = build.timing.groups.find((g) => g.id === m.groupId);
  const freeBecause = group === undefined ? null : whyFree(fixture, group.clock);
  return [
    {
      channelId: channelIdOf({ placementId: p.id, moduleId: m.id, slot }),
      placementId: p.id,
      moduleId: m.id,
      slot,
      colour,
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
      warns: isWarning(fixture),
      peakCd: output.peakCd * dim * cue.level * (p.lensByColour[colour] ?? 1),
      currentA: output.currentA * dim * cue.level,
    },
  ];
}

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
export const highestCd = (drive: Drive): number => highestLevel(drive.spans) * drive.peakCd;
