import { bindKey } from '../panelEdits.ts';
import {
  is,
  byKey,
  during,
  layByKey,
  ofSet,
  rearPart,
  some,
  there,
  first,
  applyTemplate,
  white,
  type FunctionTemplate,
} from './kit.ts';
import { darkCue, shown, newFunction, type Dim } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import type { SetClause } from '../../design/lampSets.ts';
import { forUse, shining, shiningOpen, withRuledSet } from '../lampSets.ts';

const WARNING = forUse('warning', 'factory');

/** Warning light that those at the rear look into: also what shows only while the rear stands open. */
function toTheRear(build: Build): SetClause[] {
  const stops = rearPart(build)?.stops.map(({ id }) => id) ?? [];
  return [WARNING, shiningOpen('rear', stops, true)];
}

/** What takes light away, or dims it. */
export const READY_CUTS: readonly FunctionTemplate[] = [
  {
    id: 'fog-cancel',
    name: 'Fog cancel',
    what: 'A key takes white from everything that warns, and leaves its other colours.',
    misfit: (b) => first(there(b, 'fog'), some(b, [white, WARNING], 'white warning light')),
    applyTemplate: (b) =>
      layByKey(b, {
        set: ['with-white', 'All with white', [white, WARNING]],
        key: ['fog-cancel', 'No white'],
        id: 'fog',
        name: 'Fog cancel',
        kind: 'cut',
        cues: [darkCue(ofSet('with-white'), ['white'])],
      }),
  },
  {
    id: 'night-dim',
    name: 'Night dim',
    what: 'At night, warning light ahead is dimmed to 40 %; scene light stays full.',
    misfit: (b) => first(there(b, 'night-dim'), some(b, [WARNING, shining('front')], 'warning light ahead')),
    applyTemplate: (b) => {
      const { build } = withRuledSet(b, 'ahead', 'All ahead', [WARNING, shining('front')]);
      const dims: Dim[] = [{ targets: [ofSet('ahead')], factor: 0.4, kinds: ['stage', 'warning'] }];
      return applyTemplate(
        build,
        newFunction('night-dim', 'Night dim', 'dim', during(is('ambient', 'night')), [], {
          shows: [shown([], { dims })],
        }),
      );
    },
  },
  {
    id: 'calm-rear',
    name: 'Calm rear',
    what: 'In park, a key dims warning light to the rear to 40 % for people working there. Driving off restores it. Sight distance shows the effect.',
    misfit: (b) => first(there(b, 'calm-rear'), some(b, toTheRear(b), 'warning light to the rear')),
    applyTemplate: (b) => {
      const { build } = withRuledSet(b, 'behind', 'All to the rear', toTheRear(b));
      const key = bindKey(build, 'calm-rear', 'Calm rear', 'calm-rear');
      const dims: Dim[] = [{ targets: [ofSet('behind')], factor: 0.4, kinds: ['stage', 'warning'] }];
      return applyTemplate(
        key.build,
        newFunction('calm-rear', 'Calm rear', 'dim', byKey(key.controlId), [], {
          shows: [shown([], { dims })],
          enabledBy: is('gear', 'park'),
          forgets: true,
        }),
      );
    },
  },
  {
    id: 'high-low',
    name: 'High and low',
    what: 'A key dims all warning light to 40 % and restores it. Scene light stays at full output.',
    misfit: (b) => first(there(b, 'high-low'), some(b, [WARNING], 'warning light')),
    applyTemplate: (b) => {
      const { build } = withRuledSet(b, 'warning-lamps', 'All warning lamps', [WARNING]);
      const key = bindKey(build, 'low', 'Low', 'high-low');
      const dims: Dim[] = [{ targets: [ofSet('warning-lamps')], factor: 0.4, kinds: ['stage', 'warning'] }];
      return applyTemplate(
        key.build,
        newFunction('high-low', 'Low', 'dim', byKey(key.controlId), [], { shows: [shown([], { dims })] }),
      );
    },
  },
  {
    id: 'all-dark',
    name: 'All dark',
    what: 'A key switches all warning and work light off and restores it. Signals stay.',
    misfit: (b) => first(there(b, 'all-dark'), some(b, [], 'lamp')),
    applyTemplate: (b) =>
      layByKey(b, {
        set: ['all-lamps', 'All lamps', []],
        key: ['all-dark', 'All dark'],
        id: 'all-dark',
        name: 'All dark',
        kind: 'cut',
        more: { mode: 0 },
        cues: [darkCue(ofSet('all-lamps'))],
      }),
  },
];
