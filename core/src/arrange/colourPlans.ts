import { setCue } from '../design/controlEdits.ts';
import { effectsOf, stagesOf, type ActiveFunction } from '../design/controls.ts';
import { groupTarget, lightCue, sameTarget, type Cue, type LightCue } from '../design/functions.ts';
import { addGroup } from '../design/timingEdits.ts';
import type { Slot } from '../timing/span.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Colour } from '../words/colour.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';
import { setColour } from './lamps.ts';
import type { Build } from '../design/schema.ts';

/** Ready ways to colour a whole vehicle or some of its lamps. */
export const COLOUR_PLANS = [
  'side-split',
  'both-sides',
  'amber',
  'amber-white',
  'red-white',
  'red-amber-rear',
  'by-stage',
  'white-top',
  'command-green',
] as const;
export type ColourPlan = (typeof COLOUR_PLANS)[number];

export const colourPlanName: Readonly<Record<ColourPlan, string>> = {
  'side-split': 'Red on the left, blue on the right',
  'both-sides': 'Red and blue on both sides',
  amber: 'Amber throughout',
  'amber-white': 'Amber, with white as second',
  'red-white': 'Red, with white as second',
  'red-amber-rear': 'Red; to the rear amber as second',
  'by-stage': 'Colour by stage: amber, then red, then both',
  'white-top': 'White also, in the highest stage only',
  'command-green': 'Steady green in a group of its own: command',
};

/** Nearer to the centre plane than this a module counts to the left, m. */
const MIDDLE_M = 0.02;

/** The colours a module is to hold, slot 1 first. */
function coloursOf(
  plan: ColourPlan,
  left: boolean,
  toRear: boolean,
  own: readonly Colour[],
): readonly Colour[] {
  switch (plan) {
    case 'side-split':
      return [left ? 'red' : 'blue'];
    case 'both-sides':
      return ['red', 'blue'];
    case 'amber':
      return ['amber'];
    case 'amber-white':
      return toRear ? ['amber'] : ['amber', 'white'];
    case 'red-white':
      return toRear ? ['red'] : ['red', 'white'];
    case 'red-amber-rear':
      return toRear ? ['red', 'amber'] : ['red'];
    case 'by-stage':
      return ['red', 'amber'];
    case 'white-top':
      return toRear ? own : [own[0] ?? 'red', 'white'];
    case 'command-green':
      return ['green'];
  }
}

/**
 * Lays a colour plan over lamps: each module takes the plan's colours that it is made in, as many as it holds; one
 * that is made in none of them keeps its own. Kinds that do not warn, as floods and cabin lights, are left alone.
 */
export const applyColourPlan = (build: Build, ids: ReadonlySet<string>, plan: ColourPlan): Build =>
  cueColours(paint(build, ids, plan), ids, plan);

function paint(build: Build, ids: ReadonlySet<string>, plan: ColourPlan): Build {
  const lookup = lookupOf(build);
  return build.placements
    .filter((p) => ids.has(p.id))
    .reduce((painted, p) => {
      const fixture = lookup.fixture(p.fixtureId);
      if (fixture.kind === 'scene' || fixture.kind === 'work' || fixture.kind === 'cabin') return painted;
      return placeModules(lookup, p, new Set()).reduce((b, { module, centre, frame }, i) => {
        const setup = p.modules[i];
        if (setup === undefined || (setup.insert !== 'warning' && fixture.slotted)) return b;
        const made = lookup.outputs(fixture, setup);
        const wanted = coloursOf(plan, centre[1] > -MIDDLE_M, frame.aim[0] < -0.3, setup.colours)
          .filter((colour) => made[colour] !== undefined)
          .slice(0, fixture.colourSlots);
        if (wanted.length === 0) return b;
        const ref = [{ placementId: p.id, moduleId: module.id }];
        const laid = wanted.reduce((c, colour, slot) => setColour(c, ref, slot + 1, colour), b);
        return setColour(laid, ref, wanted.length + 1, null);
      }, painted);
    }, build);
}

/** What the stages show of a plan's colours, where the plan says so: for the groups these lamps are in. */
function cueColours(build: Build, ids: ReadonlySet<string>, plan: ColourPlan): Build {
  const groups = [
    ...new Set(
      build.placements
        .filter((p) => ids.has(p.id))
        .flatMap((p) => p.modules.flatMap((m) => (m.groupId === null ? [] : [m.groupId]))),
    ),
  ];
  switch (plan) {
    case 'by-stage':
      return groups.reduce(stagesInTurn, build);
    case 'white-top':
      return groups.reduce((b, groupId) => whiteOnTop(b, groupId, ids), build);
    case 'command-green':
      return markCommand(build, ids);
    case 'side-split':
    case 'both-sides':
    case 'amber':
    case 'amber-white':
    case 'red-white':
    case 'red-amber-rear':
      return build;
  }
}

/** The stages beyond Off. */
const urgent = (build: Build): ActiveFunction[] =>
  stagesOf(build)
    .filter(({ mode }) => mode !== 0)
    .map(({ id }) => id);

const cueOf = (build: Build, on: ActiveFunction, groupId: string): SlotCue | undefined =>
  effectsOf(build, on)
    .cues.filter(isSlotCue)
    .filter((c) => sameTarget(c.target, groupTarget(groupId)))
    .toSorted((a, b) => a.ink - b.ink)[0];

type SlotCue = LightCue & { readonly ink: Slot };
const isSlotCue = (cue: Cue): cue is SlotCue => cue.show === 'light' && typeof cue.ink === 'number';

/** The second colour in stage 1, the first in stage 2, one after the other in stage 3. */
function stagesInTurn(build: Build, groupId: string): Build {
  const [lowest, highest] = [urgent(build)[0], urgent(build).at(-1)];
  if (lowest === undefined || highest === undefined) return build;
  const low = cueOf(build, lowest, groupId);
  const top = cueOf(build, highest, groupId);
  const calm = low === undefined ? build : setCue(build, lowest, low.target, low.ink, { ...low, ink: 2 });
  return top === undefined
    ? calm
    : setCue(calm, highest, top.target, top.ink, {
        ...top,
        ink: 1,
        patternId: 'colour-change',
        nightPatternId: null,
      });
}

/** White as second colour in stage 3, by the pattern of the first, and nowhere else. */
function whiteOnTop(build: Build, groupId: string, ids: ReadonlySet<string>): Build {
  const holds = build.placements.some(
    (p) => ids.has(p.id) && p.modules.some((m) => m.groupId === groupId && m.colours[1] === 'white'),
  );
  if (!holds) return build;
  const highest = urgent(build).at(-1);
  if (highest === undefined) return build;
  const lower = urgent(build)
    .slice(0, -1)
    .reduce((b, stage) => setCue(b, stage, groupTarget(groupId), 2, null), build);
  const top = cueOf(lower, highest, groupId);
  return top?.ink !== 1 ? lower : setCue(lower, highest, top.target, 2, { ...top, ink: 2 });
}

const COMMAND = 'command';

/** The lamps that came out green, steady in a group of their own in every stage. */
function markCommand(build: Build, ids: ReadonlySet<string>): Build {
  const refs = build.placements
    .filter((p) => ids.has(p.id))
    .flatMap((p) =>
      p.modules.filter((m) => m.colours[0] === 'green').map((m) => ({ placementId: p.id, moduleId: m.id })),
    );
  if (refs.length === 0) return build;
  const grouped = build.timing.groups.some((g) => g.id === COMMAND)
    ? build
    : addGroup(build, { id: COMMAND, name: 'Command' });
  const moved = changeModules(grouped, refs, { groupId: COMMAND });
  const target = groupTarget(COMMAND);
  return urgent(build).reduce((b, on) => setCue(b, on, target, 1, lightCue(target, 1, 'steady')), moved);
}
