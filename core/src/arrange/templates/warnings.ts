import {
  is,
  all,
  any,
  during,
  isOn,
  ofSet,
  steppedBy,
  laterStages,
  rearPart,
  some,
  there,
  first,
  applyTemplate,
  type FunctionTemplate,
} from './kit.ts';
import { stagesOf } from '../../design/controls.ts';
import { lightCue, newFunction, shown, type Cue } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import { partInput } from '../../design/inputs.ts';
import { bindKey } from '../panelEdits.ts';
import type { SetClause } from '../../design/lampSets.ts';
import { anyMeets, carriedBy, forUse, shining, shiningOpen, withRuledSet } from '../lampSets.ts';

/** Other flashing and marking than the stages. */
export const READY_WARNINGS: readonly FunctionTemplate[] = [
  {
    id: 'hatch-supplement',
    name: 'Hatch supplement',
    what: 'While the hatch or tailgate is open in stage 2 or 3, lamps under it take over; they stay 5 s longer.',
    misfit: (b) =>
      first(
        there(b, 'hatch-supplement'),
        rearPart(b) === undefined ? 'the vehicle has no hatch or tailgate' : null,
        rearPart(b) !== undefined && !anyMeets(b, supplementing(b))
          ? 'there is no lamp that shines to the rear with it open'
          : null,
        laterStages(b).length === 0 ? 'there is no stage 2 or 3' : null,
      ),
    applyTemplate: (b) => {
      const part = rearPart(b);
      if (part === undefined) return b;
      const clauses = supplementing(b);
      const name = clauses.some(({ about }) => about === 'part') ? 'Under the hatch' : 'To the rear';
      const set = withRuledSet(b, 'under-hatch', name, clauses);
      return applyTemplate(
        set.build,
        newFunction(
          'hatch-supplement',
          'Hatch supplement',
          'warning',
          during(
            all(is(partInput(part.id), ...part.stops.map((s) => s.id)), any(...laterStages(set.build))),
            5000,
          ),
          [lightCue(ofSet(set.set.id), 1, 'double')],
        ),
      );
    },
  },
  {
    id: 'park-slow',
    name: 'Slow in park',
    what: 'In park, each stage uses a slow pattern, regardless of the slide. Steady lamps continue.',
    misfit: (b) =>
      first(
        lightingStages(b)
          .map(({ id }) => there(b, slowId(id)))
          .find((why) => why !== null) ?? null,
        lightingStages(b).length === 0 ? 'no stage shows anything' : null,
      ),
    applyTemplate: (b) =>
      lightingStages(b).reduceRight(
        (build, stage) =>
          applyTemplate(
            build,
            newFunction(
              slowId(stage.id),
              `Slow in park, ${stage.name}`.slice(0, 60),
              'warning',
              during(all(is('gear', 'park'), isOn(stage.id))),
              (stage.shows[0]?.cues ?? []).map(slow),
              { mode: stage.mode },
            ),
          ),
        b,
      ),
  },
  {
    id: 'pattern-key',
    name: 'Pattern key',
    what: 'Each press of a key shows another pattern in front in stages 2 and 3: two, then the stage’s own again; held, at once.',
    misfit: (b) =>
      first(
        there(b, 'pattern-key'),
        laterStages(b).length === 0 ? 'there is no stage 2 or 3' : null,
        some(b, [forUse('warning'), shining('front')], 'warning light ahead'),
      ),
    applyTemplate: (b) => {
      const { build } = withRuledSet(b, 'ahead-warning', 'Warning ahead', [
        forUse('warning'),
        shining('front'),
      ]);
      const key = bindKey(build, 'pattern-key', 'Pattern', 'pattern-key');
      const pattern = (patternId: string) => shown([lightCue(ofSet('ahead-warning'), 1, patternId)]);
      return applyTemplate(
        key.build,
        newFunction('pattern-key', 'Pattern key', 'warning', steppedBy(key.controlId), [], {
          shows: [pattern('double'), pattern('triple')],
          enabledBy: any(...laterStages(key.build)),
          forgets: true,
        }),
      );
    },
  },
];

const lightingStages = (build: Build) =>
  stagesOf(build).filter(({ mode, shows }) => mode !== 0 && (shows[0]?.cues.length ?? 0) > 0);
const slowId = (stageId: string): string => `park-slow-${stageId}`;
const slow = (cue: Cue): Cue =>
  cue.show === 'dark' || cue.patternId === 'steady'
    ? cue
    : { ...cue, patternId: 'slow-alternate', nightPatternId: null, phases: null };

/** What shines to the rear with the hatch or tailgate open: the lamps that it carries, or else all others that warn. */
function supplementing(build: Build): SetClause[] {
  const part = rearPart(build);
  if (part === undefined) return [];
  // What looks to the rear while it is closed looks to the sky.
  const back = [forUse('warning'), shiningOpen('rear', [part.stops[0].id])];
  const under = [...back, carriedBy(part.id, false)];
  return anyMeets(build, under) ? under : back;
}
