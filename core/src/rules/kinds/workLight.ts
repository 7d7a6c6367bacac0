import { z } from 'zod';
import { runToCompletion } from '../../words/inSteps.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { onsOf, activeFunctionNames } from '../../design/controls.ts';
import { areaLight, groundGrid, workAreasOf, type GroundGrid } from '../../sight/ground.ts';
import { lightsIn, sourcesOf } from '../../sight/source.ts';
import { outlineOf } from '../../sight/stations.ts';
import { stateWith } from '../../state/state.ts';
import { numberBetween } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { atLeast } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import type { LayoutSubject } from '../layout/subject.ts';
import { figure, oneOf } from '../piece.ts';
import { about } from '../subject.ts';

const AREAS = [
  { value: 'left', text: 'left side' },
  { value: 'right', text: 'right side' },
  { value: 'rear', text: 'rear' },
  { value: 'front', text: 'front' },
] as const;

/** Coarser than on screen: the areas are metres wide, m. */
const STEP_M = 0.5;

const ANY_LX = { min: 0, max: 100_000 };

/** Ground beside the vehicle gets enough light to work by, with every light to work by on and everything shut. */
export const workLight = defineRule({
  kind: 'work-light',
  title: 'Work area illuminance',
  blank: { area: 'rear', meanLx: 10, leastLx: 1 },
  home: 'visibility',
  sees: 'document',
  schema: z.strictObject({
    kind: z.literal('work-light'),
    ...RULE_HEAD,
    area: z.enum(['left', 'right', 'rear', 'front'], { error: 'must be left, right, rear or front' }),
    meanLx: numberBetween(0, 100_000),
    leastLx: numberBetween(0, 100_000),
  }),
  sentenceParts: (rule) => [
    'With all work lights on, the ground at the ',
    oneOf('area', rule.area, 'Ground', AREAS),
    ', 3 m wide, has an average of at least ',
    figure('meanLx', rule.meanLx, 'Mean, lx', ANY_LX),
    ' lx and a minimum of ',
    figure('leastLx', rule.leastLx, 'Least, lx', ANY_LX),
    ' lx, everything closed',
  ],
  findIssues: (subject, rule) => {
    const on = workOns(subject);
    const area = workAreasOf(outlineOf(subject.lookup.vehicle)).find(({ id }) => id === rule.area);
    if (area === undefined) return [];
    const found = areaLight(gridOf(subject), area, rule.leastLx);
    const which =
      on.length === 0 ? 'no work light function' : `with ${activeFunctionNames(subject.build, on)}`;
    const short = (what: string, is: number, least: number): IssueDraft => ({
      subjects: [about('work area', rule.area), about('topic', what)],
      sentence: `ground illuminance, ${rule.area}: ${what === 'mean' ? 'average' : 'minimum'} ${is.toFixed(1)} lx, ${which} (minimum ${least} lx).`,
      figure: { value: is, unit: 'lx' },
      limits: [atLeast(least, 'lx')],
      state: on.length === 0 ? null : stateWith({ on }),
    });
    return [
      ...(found.meanLx < rule.meanLx ? [short('mean', found.meanLx, rule.meanLx)] : []),
      ...(found.leastLx < rule.leastLx ? [short('least', found.leastLx, rule.leastLx)] : []),
    ];
  },
});

const workOns = ({ build }: LayoutSubject) =>
  build.controls.functions.filter(({ kind }) => kind === 'light').flatMap((fn) => onsOf(fn).slice(0, 1));

const grids = new WeakMap<LayoutSubject, GroundGrid>();

/** The light on the ground, worked out once for all rules that ask. */
function gridOf(subject: LayoutSubject): GroundGrid {
  const known = grids.get(subject);
  if (known !== undefined) return known;
  const lamps = sourcesOf(lightsIn(subject.build, stateWith({ on: workOns(subject) })), 'steady');
  const outline = outlineOf(subject.lookup.vehicle);
  const grid = runToCompletion(groundGrid(lamps, outline, { stepM: STEP_M, beyondM: 3 }));
  grids.set(subject, grid);
  return grid;
}
