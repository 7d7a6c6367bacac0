import type { Build, Cue, ModuleSetup, Placement, StageIndex } from '../design/schema.ts';
import type { Ambient } from '../coverage/range.ts';
import { lookupOf, type Lookup } from './lookup.ts';
import type { Colour } from '../words/colour.ts';
import { bookOf } from '../timing/book.ts';
import { timeOf } from '../timing/clock.ts';
import { lineOf, slotsOf, type Cycle } from '../timing/pattern.ts';
import { atSpeed } from '../timing/recipes/speed.ts';
import { highestLevel, isSteady, shifted, type Slot, type Span } from '../timing/span.ts';
import { whyFree } from '../timing/step.ts';

/** What one channel is given to do in a stage. */
export interface Drive {
  readonly channelId: string;
  readonly placementId: string;
  readonly moduleId: string;
  readonly colour: Colour;
  readonly groupId: string | null;
  /** Channels of one clock keep their phases; different clocks drift. */
  readonly clockId: string;
  /** Why it runs free although it is in a group; null when it keeps the group's step or is in none. */
  readonly freeBecause: string | null;
  readonly patternId: string;
  /** The pattern's line that it shows, from 0. */
  readonly line: number;
  readonly cycleMs: number;
  readonly spans: readonly Span[];
  readonly steady: boolean;
  readonly slowestPerMinute: number;
  readonly fastestPerMinute: number;
  readonly pulsesAFlash: number;
  /** Peak intensity while on at span level 1, after dimming, before lens and body, cd. */
  readonly peakCd: number;
  /** Current while on at span level 1, after dimming, A. */
  readonly currentA: number;
}

/** Names one colour of one module of one placement. */
export const channelIdOf = (placementId: string, moduleId: string, slot: number): string =>
  `${placementId}/${moduleId}/${slot}`;

/** What is driven in the stages of a build; a build never changes, so it is worked out once. */
const known = new WeakMap<Build, Map<string, readonly Drive[]>>();

/** Every channel that lights in this stage, in document order. */
export function drivesOf(build: Build, stageIndex: StageIndex, ambient: Ambient): readonly Drive[] {
  const ofBuild = known.get(build) ?? new Map<string, readonly Drive[]>();
  known.set(build, ofBuild);
  const key = `${stageIndex}${ambient}`;
  const drives = ofBuild.get(key) ?? workOut(build, stageIndex, ambient);
  ofBuild.set(key, drives);
  return drives;
}

/** A cue with its cycle at the group's speed. */
interface Playing {
  readonly cue: Cue;
  readonly cycle: Cycle;
  readonly patternId: string;
  readonly offsetMs: number;
  readonly slots: readonly Slot[];
}

function workOut(build: Build, stageIndex: StageIndex, ambient: Ambient): readonly Drive[] {
  const stage = build.timing.stages[stageIndex];
  const dim = ambient === 'night' ? stage.nightLevel : 1;
  const lookup = lookupOf(build);
  const playing = stage.cues.map((cue): Playing => playCue(build, cue, ambient));
  return build.placements.flatMap((p) => {
    if (p.status === 'removed') return [];
    return p.modules.flatMap((m) =>
      playing
        .filter(({ cue }) => cue.groupId === m.groupId)
        .flatMap((play) => play.slots.flatMap((slot) => driveOf(build, lookup, p, m, play, slot, dim))),
    );
  });
}

function playCue(build: Build, cue: Cue, ambient: Ambient): Playing {
  const patternId = patternShown(cue, ambient);
  const time = cue.groupId === null ? null : timeOf(build.timing.groups, cue.groupId);
  const cycle = atSpeed(bookOf(build).cycle(patternId), time?.speed ?? 1);
  return { cue, cycle, patternId, offsetMs: time?.offsetMs ?? 0, slots: slotsOf(cycle, cue.slot) };
}

/** The pattern a cue shows by day, or by night where it names another for it. */
export const patternShown = (cue: Cue, ambient: Ambient): string =>
  ambient === 'night' ? (cue.nightPatternId ?? cue.patternId) : cue.patternId;

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
      channelId: channelIdOf(p.id, m.id, slot),
      placementId: p.id,
      moduleId: m.id,
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
      peakCd: output.peakCd * dim * cue.level,
      currentA: output.currentA * dim * cue.level,
    },
  ];
}

/** A head in no group runs module by module on clocks of its own; one that cannot follow its group, as a whole. */
function clockOf(build: Build, p: Placement, m: ModuleSetup, free: boolean): string {
  if (m.groupId === null) return `free:${p.id}/${m.id}`;
  return free ? `free:${p.id}` : timeOf(build.timing.groups, m.groupId).rootId;
}

/** Channels of one pattern at one speed flash in one rhythm. */
export const rhythmOf = ({ patternId, cycleMs }: Pick<Drive, 'patternId' | 'cycleMs'>): string =>
  `${patternId} ${cycleMs}`;

/** What a channel sends along its aim at the highest level of its spans, cd. */
export const highestCd = (drive: Drive): number => highestLevel(drive.spans) * drive.peakCd;
