import {
  alsoWhile,
  byKey,
  aboveOthers,
  first,
  applyTemplate,
  layByKey,
  ofSet,
  some,
  steady,
  there,
  type FunctionTemplate,
} from './kit.ts';
import { addFunction } from '../../design/controlEdits.ts';
import { stagesOf } from '../../design/controls.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import { bindKey } from '../panelEdits.ts';
import { forUse, inColour, withRuledSet } from '../lampSets.ts';

/** What the whole vehicle shows at one command, whatever the stages are at. */
export const READY_MODES: readonly FunctionTemplate[] = [
  {
    id: 'command-green',
    name: 'Command green',
    what: 'A key shows green on the heads that have it instead of red and white, and restores them.',
    misfit: (b) => first(there(b, 'command-green'), some(b, [inColour('green')], 'green light')),
    // White by its own key must not hold the boards that say who commands.
    applyTemplate: (b) =>
      aboveOthers(
        layByKey(b, {
          set: ['green', 'All with green', [inColour('green')]],
          key: ['command-green', 'Command'],
          id: 'command-green',
          name: 'Command green',
          kind: 'warning',
          cues: [steady('green', 'green')],
        }),
        'command-green',
      ),
  },
  {
    id: 'cruise',
    name: 'Cruise',
    what: 'A key shows the first colour of all warning heads, steady and dimmed, unless a higher function is on.',
    misfit: (b) => first(there(b, 'cruise'), some(b, [forUse('warning')], 'warning light')),
    applyTemplate: (b) => {
      const { build } = withRuledSet(b, 'all-warning', 'All warning heads', [forUse('warning')]);
      const key = bindKey(build, 'cruise', 'Cruise', 'cruise');
      const low = lightCue(ofSet('all-warning'), 1, 'steady', { level: 0.15, dimmed: false });
      const cruise = newFunction('cruise', 'Cruise', 'warning', byKey(key.controlId), [low]);
      return addFunction(key.build, cruise, weakestStage(key.build));
    },
  },
  {
    id: 'parade',
    name: 'Parade',
    what: 'A key shows a slow, dimmed pattern in the first colour of all warning heads, instead of any stage. White is off.',
    misfit: (b) => first(there(b, 'parade'), some(b, [forUse('warning')], 'warning light')),
    applyTemplate: (b) => {
      const { build } = withRuledSet(b, 'all-warning', 'All warning heads', [forUse('warning')]);
      const key = bindKey(build, 'parade', 'Parade', 'parade');
      const slow = lightCue(ofSet('all-warning'), 1, 'slow-alternate', { level: 0.5 });
      return applyTemplate(
        key.build,
        newFunction('parade', 'Parade', 'warning', byKey(key.controlId), [slow], { mode: 1 }),
      );
    },
  },
  {
    id: 'emergency-lights',
    name: 'Emergency lights',
    what: 'A key switches on the light of the highest stage and its additions, regardless of the slide. The siren is not affected.',
    misfit: (b) =>
      first(there(b, 'emergency-lights'), lastStage(b) === undefined ? 'there is no stage' : null),
    applyTemplate: (b) => {
      const last = lastStage(b);
      if (last === undefined) return b;
      const key = bindKey(b, 'emergency', 'Emergency', 'emergency-lights');
      const joined = alsoWhile(key.build, last.id, 'emergency-lights');
      return applyTemplate(
        joined,
        newFunction('emergency-lights', 'Emergency lights', 'warning', byKey(key.controlId), [], {
          mode: last.mode,
          shows: last.shows.map(({ cues, dims }) => ({ cues, dims, loads: [] })),
        }),
      );
    },
  },
];

const lastStage = (build: Build) => stagesOf(build).findLast(({ mode }) => mode !== 0);

/** The rank below all stages that light: what burns while nothing else does. */
function weakestStage(build: Build): number {
  const { functions } = build.controls;
  return functions.findLastIndex((fn) => fn.kind === 'stage' && fn.mode !== 0) + 1;
}
