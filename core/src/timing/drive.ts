import type { Build, StageIndex } from '../build/schema.ts';
import type { Ambient } from '../coverage/range.ts';
import { fixtureOf } from '../fixture/catalogue/catalogue.ts';
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

/** Every channel that lights in this stage, in document order. */
export function drivesOf(build: Build, stageIndex: StageIndex, ambient: Ambient): Drive[] {
  const stage = build.timing.stages[stageIndex];
  const dim = ambient === 'night' ? stage.nightLevel : 1;
  return build.placements.flatMap((p) => {
    const fixture = fixtureOf(p.fixtureId);
    return p.modules.flatMap((m) =>
      stage.cues.flatMap((cue): Drive[] => {
        const colour = m.colours[cue.slot - 1];
        const output = colour === undefined ? undefined : fixture.outputs[colour];
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
      }),
    );
  });
}
