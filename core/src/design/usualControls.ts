import type { Controls } from './controls.ts';
import { labelFrom, type ControlFunction, type Cue } from './functions.ts';
import type { Panel } from './panel.ts';

/** The ids of Off and the three stages that every build begins with, in order of urgency. */
export const STAGE_IDS = ['off', 'stage-1', 'stage-2', 'stage-3'] as const;
export type StageId = (typeof STAGE_IDS)[number];

const NAMES: Readonly<Record<StageId, string>> = {
  off: 'Off',
  'stage-1': 'Stage 1',
  'stage-2': 'Stage 2',
  'stage-3': 'Stage 3',
};
const MODES = { off: 0, 'stage-1': 1, 'stage-2': 2, 'stage-3': 3 } as const;

/** The slide that a build begins with. */
export const SLIDE = 'slide';
const POSITIONS: Readonly<Record<StageId, string>> = {
  off: 'off',
  'stage-1': '1',
  'stage-2': '2',
  'stage-3': '3',
};

const stage = (id: StageId, name: string, cues: Cue[]): ControlFunction => ({
  id,
  name,
  label: labelFrom(name),
  kind: 'stage',
  mode: MODES[id],
  shows: [{ cues, dims: [], loads: [] }],
  when: {
    way: 'while',
    condition: { kind: 'is', input: SLIDE, values: [POSITIONS[id]] },
    afterMs: 0,
    staysMs: 0,
  },
  enabledBy: null,
  forgets: false,
  choiceId: null,
  mayStay: false,
  withoutMaster: false,
});

const panel = (): Panel => ({
  id: 'panel',
  name: 'Switch panel',
  place: 'console',
  touch: false,
  cabPlaceId: null,
  widthMm: 180,
  heightMm: 60,
  depthMm: 40,
  controls: [
    {
      kind: 'slide',
      id: SLIDE,
      label: 'Warning',
      page: 1,
      column: 1,
      row: 1,
      twinOf: null,
      backlit: true,
      values: STAGE_IDS.map((id) => POSITIONS[id]),
    },
  ],
});

/**
 * What a build begins with: a slide of four positions for Off and three stages.
 * @param stages - what each is called and shows, where it differs from nothing
 */
export function defaultControls(
  stages: Partial<Record<StageId, { readonly name: string; readonly cues: Cue[] }>> = {},
): Controls {
  return {
    functions: STAGE_IDS.toReversed().map((id) =>
      stage(id, stages[id]?.name ?? NAMES[id], stages[id]?.cues ?? []),
    ),
    sets: [],
    loads: [],
    panels: [panel()],
    cabPlaces: [],
    triggers: [],
    oldPanel: [],
    inputs: [],
    never: [],
    follows: [],
    enabledBy: null,
    trials: [],
  };
}
