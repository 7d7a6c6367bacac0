import type { Build, StageIndex } from '../build/schema.ts';
import type { Ambient } from '../coverage/range.ts';
import { lookupOf } from '../build/lookup.ts';
import type { Colour } from '../fixture/colour.ts';
import { patternOf } from './library.ts';
import { isSteady, spansFor, type Span } from './pattern.ts';

/** What one channel is given to do in a stage. */
export interface Drive {
  readonly channelId: string;
  readonly placementId: string;
  readonly moduleId: string;
  readonly colour: Colour;
  readonly groupId: string | null;
  /** Channels of one clock keep their phases; different clocks drift. */
  readonly clockId: string;
  readonly patternId: string;
  readonly cycleMs: number;
  readonly spans: readonly Span[];
  readonly steady: boolean;
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

function workOut(build: Build, stageIndex: StageIndex, ambient: Ambient): readonly Drive[] {
  const stage = build.timing.stages[stageIndex];
  const dim = ambient === 'night' ? stage.nightLevel : 1;
  const lookup = lookupOf(build);
  return build.placements.flatMap((p) => {
    if (p.status === 'removed') return [];
    const fixture = lookup.fixture(p.fixtureId);
    return p.modules.flatMap((m) => {
      const outputs = lookup.outputs(fixture, m);
      return stage.cues.flatMap((cue): Drive[] => {
        const colour = m.colours[cue.slot - 1];
        const output = colour === undefined ? undefined : outputs[colour];
        if (cue.groupId !== m.groupId || colour === undefined || output === undefined) return [];
        const pattern = patternOf(cue.patternId);
        const spans = spansFor(pattern, m.phase, m.order);
        return [
          {
            channelId: channelIdOf(p.id, m.id, cue.slot),
            placementId: p.id,
            moduleId: m.id,
            colour,
            groupId: m.groupId,
            clockId: m.groupId ?? `free:${p.id}/${m.id}`,
            patternId: pattern.id,
            cycleMs: pattern.cycleMs,
            spans,
            steady: isSteady(spans, pattern.cycleMs),
            peakCd: output.peakCd * dim * cue.level,
            currentA: output.currentA * dim * cue.level,
          },
        ];
      });
    });
  });
}
