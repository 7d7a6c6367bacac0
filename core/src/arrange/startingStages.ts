import type { Build } from '../design/schema.ts';
import { setCue, withControls } from '../design/controlEdits.ts';
import { groupTarget, lightCue, newFunction } from '../design/functions.ts';
import { button } from './panelEdits.ts';
import { addGroupInStep } from '../design/timingEdits.ts';
import type { StageId } from '../design/usualControls.ts';
import type { Slot } from '../timing/span.ts';
import { placeName, PLACES, type LampRegion } from './assignDefaults.ts';

/** What the stages of a new build begin with. */
export const STAGE_PRESETS = ['rear-all-white', 'by-colour', 'one-key', 'none'] as const;
export type Start = (typeof STAGE_PRESETS)[number];

export const startText: Readonly<Record<Start, { readonly name: string; readonly what: string }>> = {
  'rear-all-white': {
    name: 'Rear · all · all and second colour',
    what: 'Stage 1 warns to the rear, stage 2 all round, stage 3 adds the second colour of each lamp.',
  },
  'by-colour': {
    name: 'By colour',
    what: 'Stage 1 shows the second colour of each lamp, stage 2 the first, stage 3 both.',
  },
  'one-key': {
    name: 'No stages, one key',
    what: 'One key lights every lamp, as on a works truck. There are no stages.',
  },
  none: { name: 'None', what: 'Groups are created when lamps are placed and are lit in the current stage.' },
};

/** A group, what it shows, and in which colour slot. */
type Shows = readonly [LampRegion, string, Slot];

const all = (patternId: string, slot: Slot = 1): Shows[] => PLACES.map((place) => [place, patternId, slot]);

const SHOWN: Readonly<
  Record<Exclude<Start, 'none' | 'one-key'>, readonly (readonly [StageId, readonly Shows[]])[]>
> = {
  'rear-all-white': [
    ['stage-1', [['rear', 'single', 1]]],
    ['stage-2', all('double')],
    ['stage-3', [...all('quad'), ...all('single-short', 2)]],
  ],
  'by-colour': [
    ['stage-1', all('single', 2)],
    ['stage-2', all('double')],
    ['stage-3', [...all('double'), ...all('single', 2)]],
  ],
};

/** The key that lights everything, and what it lights. */
const ONE_KEY = 'key-warning';

/** One function in place of all stages, switched by a key in place of the slide. */
function withOneKey(build: Build): Build {
  const warning = newFunction(
    'warning',
    'Warning',
    'warning',
    {
      way: 'latched',
      sets: [],
      clears: [],
      toggles: [{ kind: 'press', control: ONE_KEY, press: 'short' }],
      timeoutMs: 0,
    },
    all('double').map(([place, patternId, slot]) => lightCue(groupTarget(place), slot, patternId)),
    { mode: 1 },
  );
  return withControls(build, {
    functions: [warning],
    panels: build.controls.panels.map((panel) => ({
      ...panel,
      controls: [button(ONE_KEY, warning.label, { page: 1, column: 1, row: 1 }, warning.id)],
    })),
  });
}

/** Groups for the front, the sides, the rear and the roof, and what each shows in each stage while the ignition is on. */
export function withStartingStages(build: Build, start: Start): Build {
  // Nothing is to burn on with the key off, unless somebody says so.
  const asked = withControls(build, { enabledBy: { kind: 'is', input: 'ignition', values: ['on'] } });
  if (start === 'none') return asked;
  const grouped = PLACES.reduce((b, id) => addGroupInStep(b, { id, name: placeName[id] }), asked);
  if (start === 'one-key') return withOneKey(grouped);
  return SHOWN[start].reduce(
    (b, [stage, shows]) =>
      shows.reduce(
        (c, [groupId, patternId, slot]) =>
          setCue(c, stage, groupTarget(groupId), slot, lightCue(groupTarget(groupId), slot, patternId)),
        b,
      ),
    grouped,
  );
}
