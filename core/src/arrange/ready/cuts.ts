import { bindKey } from '../panelEdits.ts';
import {
  is,
  byKey,
  during,
  layByKey,
  ofSet,
  rearPart,
  hasWhite,
  some,
  there,
  first,
  lay,
  type ReadyFunction,
} from './kit.ts';
import { darkCue, shown, newFunction, type Dim } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import { setOf, shinesAhead, shinesBack, type Choosable } from '../sideSets.ts';

/** Warning light that those at the rear look into: also what shows only while the rear stands open. */
function toTheRear(build: Build): (m: Choosable) => boolean {
  const rear = rearPart(build)?.id;
  return (m) => m.warns && (shinesBack(m) || (m.covered && m.partId === rear));
}

/** What takes light away, or dims it. */
export const READY_CUTS: readonly ReadyFunction[] = [
  {
    id: 'fog-cancel',
    name: 'Fog cancel',
    what: 'A key takes white from everything that warns, and leaves its other colours.',
    misfit: (b) => first(there(b, 'fog'), some(b, hasWhite, 'white light')),
    lay: (b) =>
      layByKey(b, {
        set: ['with-white', 'All with white', (m) => hasWhite(m) && m.warns],
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
    misfit: (b) =>
      first(
        there(b, 'night-dim'),
        some(b, (m) => shinesAhead(m) && m.warns, 'warning light ahead'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'ahead', 'All ahead', (m) => shinesAhead(m) && m.warns);
      const dims: Dim[] = [{ targets: [ofSet('ahead')], factor: 0.4, kinds: ['stage', 'warning'] }];
      return lay(
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
    what: 'In park a key dims warning light to the rear to 40 %, for the eyes of those who work there; driving off gives it back. What it costs in range stands beside each approach.',
    misfit: (b) => first(there(b, 'calm-rear'), some(b, toTheRear(b), 'warning light to the rear')),
    lay: (b) => {
      const { build } = setOf(b, 'behind', 'All to the rear', toTheRear(b));
      const key = bindKey(build, 'calm-rear', 'Calm rear', 'calm-rear');
      const dims: Dim[] = [{ targets: [ofSet('behind')], factor: 0.4, kinds: ['stage', 'warning'] }];
      return lay(
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
    what: 'A key dims all warning light to 40 %, and gives it back; scene light stays full.',
    misfit: (b) =>
      first(
        there(b, 'high-low'),
        some(b, (m) => m.warns, 'warning light'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'warning-lamps', 'All warning lamps', (m) => m.warns);
      const key = bindKey(build, 'low', 'Low', 'high-low');
      const dims: Dim[] = [{ targets: [ofSet('warning-lamps')], factor: 0.4, kinds: ['stage', 'warning'] }];
      return lay(
        key.build,
        newFunction('high-low', 'Low', 'dim', byKey(key.controlId), [], { shows: [shown([], { dims })] }),
      );
    },
  },
  {
    id: 'all-dark',
    name: 'All dark',
    what: 'A key takes all warning and work light at once and gives it back; signals stay.',
    misfit: (b) =>
      first(
        there(b, 'all-dark'),
        some(b, () => true, 'lamp'),
      ),
    lay: (b) =>
      layByKey(b, {
        set: ['all-lamps', 'All lamps', () => true],
        key: ['all-dark', 'All dark'],
        id: 'all-dark',
        name: 'All dark',
        kind: 'cut',
        mode: 0,
        cues: [darkCue(ofSet('all-lamps'))],
      }),
  },
];
