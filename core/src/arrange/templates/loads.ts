import {
  is,
  all,
  any,
  during,
  steppedBy,
  warning,
  rearClosed,
  there,
  first,
  applyTemplate,
  type FunctionTemplate,
} from './kit.ts';
import { shown, newFunction } from '../../design/functions.ts';
import type { Condition } from '../../design/condition.ts';
import { withControls } from '../../design/controlEdits.ts';
import type { AuxOutput } from '../../design/controls.ts';
import { raisablesOf } from '../../design/raised.ts';
import type { Build } from '../../design/schema.ts';
import { bindKey } from '../panelEdits.ts';

/** Outputs that are no lamps. */
export const READY_LOADS: readonly FunctionTemplate[] = [
  {
    id: 'siren',
    name: 'Siren',
    what: 'One key selects wail, yelp and off while a stage is on and the rear is closed. Holding the key stops the tone.',
    misfit: (b) => first(there(b, 'siren'), warning(b).length === 0 ? 'there is no stage' : null),
    applyTemplate: (b) => {
      const loaded = withLoad(b, { id: 'siren', name: 'Siren', values: ['off', 'wail', 'yelp'] });
      const key = bindKey(loaded, 'siren', 'Siren', 'siren');
      const tone = (value: string) => shown([], { loads: [{ loadId: 'siren', value }] });
      return applyTemplate(
        key.build,
        newFunction('siren', 'Siren', 'load', steppedBy(key.controlId), [], {
          shows: [tone('wail'), tone('yelp')],
          enabledBy: all(any(...warning(b)), ...rearClosed(b)),
          forgets: true,
        }),
      );
    },
  },
  {
    id: 'raised-alarm',
    name: 'Raised alarm',
    what: 'A buzzer while a mast or a lamp on a pole is raised at speed.',
    misfit: (b) => first(there(b, 'raised-alarm'), raised(b).length === 0 ? 'nothing is raised' : null),
    applyTemplate: (b) =>
      applyTemplate(
        withLoad(b, { id: 'buzzer', name: 'Buzzer', values: ['off', 'on'] }),
        newFunction(
          'raised-alarm',
          'Raised alarm',
          'load',
          during(all(is('speed', 'fast'), any(...raised(b)))),
          [],
          { shows: [shown([], { loads: [{ loadId: 'buzzer', value: 'on' }] })] },
        ),
      ),
  },
];

/** A build that has a load, its own of that id where there is one. */
const withLoad = (b: Build, load: AuxOutput): Build =>
  b.controls.loads.some(({ id }) => id === load.id)
    ? b
    : withControls(b, { loads: [...b.controls.loads, load] });

/** Masts and poles, each while it stands raised. */
const raised = (b: Build): Condition[] => raisablesOf(b).map(({ input, values }) => is(input, ...values));
