import { is, all, any, steppedBy, warning, rearPart, there, first, lay, type ReadyFunction } from './kit.ts';
import { shown, newFunction } from '../../design/functions.ts';
import type { Condition } from '../../design/condition.ts';
import { withControls } from '../../design/controlEdits.ts';
import { partInput } from '../../design/inputs.ts';
import { bindKey } from '../panelEdits.ts';

/** Outputs that are no lamps. */
export const READY_LOADS: readonly ReadyFunction[] = [
  {
    id: 'siren',
    name: 'Siren',
    what: 'Tones by key, wail, yelp and off, while a stage is on and nothing at the rear stands open; holding the key stops it.',
    misfit: (b) => first(there(b, 'siren'), warning(b).length === 0 ? 'there is no stage' : null),
    lay: (b) => {
      const loads = b.controls.loads.some((l) => l.id === 'siren')
        ? b.controls.loads
        : [...b.controls.loads, { id: 'siren', name: 'Siren', values: ['off', 'wail', 'yelp'] }];
      const part = rearPart(b);
      const open = part === undefined ? [] : [is(partInput(part.id), ...part.stops.map((s) => s.id))];
      const key = bindKey(withControls(b, { loads }), 'siren', 'Siren', 'siren');
      const tone = (value: string) => shown([], { loads: [{ loadId: 'siren', value }] });
      return lay(
        key.build,
        newFunction('siren', 'Siren', 'load', steppedBy(key.controlId), [], {
          shows: [tone('wail'), tone('yelp')],
          enabledBy: all(any(...warning(b)), ...open.map((c): Condition => ({ kind: 'not', of: c }))),
          forgets: true,
        }),
      );
    },
  },
];
