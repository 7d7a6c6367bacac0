import {
  is,
  all,
  any,
  during,
  byKey,
  ofSet,
  steady,
  laterStages,
  rearPart,
  some,
  there,
  first,
  lay,
  type ReadyFunction,
} from './kit.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import { partInput } from '../../design/inputs.ts';
import { bindKey } from '../panelEdits.ts';
import { setOf, shinesBack } from '../sideSets.ts';

/** Other flashing and marking than the stages. */
export const READY_WARNINGS: readonly ReadyFunction[] = [
  {
    id: 'hatch-supplement',
    name: 'Hatch supplement',
    what: 'While the hatch or tailgate is open in stage 2 or 3, lamps under it take over; they stay 5 s longer.',
    misfit: (b) =>
      first(
        there(b, 'hatch-supplement'),
        rearPart(b) === undefined ? 'the vehicle has no hatch or tailgate' : null,
        some(b, shinesBack, 'lamp that shines to the rear'),
        laterStages(b).length === 0 ? 'there is no stage 2 or 3' : null,
      ),
    lay: (b) => {
      const part = rearPart(b);
      if (part === undefined) return b;
      const under = setOf(b, 'under-hatch', 'Under the hatch', (m) => shinesBack(m) && m.partId === part.id);
      const set =
        under.set.modules.length > 0
          ? under
          : setOf(b, 'under-hatch', 'To the rear', (m) => shinesBack(m) && m.warns && !m.factory);
      return lay(
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
    id: 'command-green',
    name: 'Command green',
    what: 'A key shows green from the heads that have it and drops their red and white; it gives them back.',
    misfit: (b) =>
      first(
        there(b, 'command-green'),
        some(b, (m) => m.colours.includes('green'), 'green light'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'green', 'All with green', (m) => m.colours.includes('green'));
      const key = bindKey(build, 'command-green', 'Command', 'command-green');
      return lay(
        key.build,
        newFunction('command-green', 'Command green', 'warning', byKey(key.controlId), [
          steady('green', 'green'),
        ]),
      );
    },
  },
  {
    id: 'park-slow',
    name: 'Slow in park',
    what: 'In park every later stage shows a slow pattern instead, at any slide position.',
    misfit: (b) =>
      first(
        there(b, 'park-slow'),
        laterStages(b).length === 0 ? 'there is no stage 2 or 3' : null,
        b.timing.groups.length === 0 ? 'there is no sync group' : null,
      ),
    lay: (b) =>
      lay(
        b,
        newFunction(
          'park-slow',
          'Slow in park',
          'warning',
          during(all(is('gear', 'park'), any(...laterStages(b)))),
          b.timing.groups.map((g) => lightCue({ kind: 'group', groupId: g.id }, 1, 'slow-alternate')),
          { mode: 2 },
        ),
      ),
  },
];
