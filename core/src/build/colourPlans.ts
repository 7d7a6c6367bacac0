import type { Colour } from '../fixture/colour.ts';
import { lookupOf } from './lookup.ts';
import { placeModules } from './place.ts';
import { setColour } from './edits.ts';
import type { Build } from './schema.ts';

/** Ready ways to colour a whole vehicle or some of its lamps. */
export const COLOUR_PLANS = [
  'side-split',
  'both-sides',
  'amber',
  'amber-white',
  'red-white',
  'red-amber-rear',
] as const;
export type ColourPlan = (typeof COLOUR_PLANS)[number];

export const colourPlanName: Readonly<Record<ColourPlan, string>> = {
  'side-split': 'Red on the left, blue on the right',
  'both-sides': 'Red and blue on both sides',
  amber: 'Amber throughout',
  'amber-white': 'Amber, with white as second',
  'red-white': 'Red, with white as second',
  'red-amber-rear': 'Red; to the rear amber as second',
};

/** Nearer to the centre plane than this a module counts to the left, m. */
const MIDDLE_M = 0.02;

/** The colours a module is to hold, slot 1 first. */
function coloursOf(plan: ColourPlan, left: boolean, toRear: boolean): readonly Colour[] {
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
  }
}

/**
 * Lays a colour plan over lamps: each module takes the plan's colours that it is made in, as many as it holds; one
 * that is made in none of them keeps its own. Kinds that do not warn, as floods and cabin lights, are left alone.
 */
export function layColourPlan(build: Build, ids: ReadonlySet<string>, plan: ColourPlan): Build {
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
        const wanted = coloursOf(plan, centre[1] > -MIDDLE_M, frame.aim[0] < -0.3)
          .filter((colour) => made[colour] !== undefined)
          .slice(0, fixture.colourSlots);
        if (wanted.length === 0) return b;
        const ref = [{ placementId: p.id, moduleId: module.id }];
        const laid = wanted.reduce((c, colour, slot) => setColour(c, ref, slot + 1, colour), b);
        return setColour(laid, ref, wanted.length + 1, null);
      }, painted);
    }, build);
}
