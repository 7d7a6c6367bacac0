import {
  is,
  all,
  any,
  during,
  byKey,
  aboveOthers,
  layByKey,
  press,
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
import { addFunction } from '../../design/controlEdits.ts';
import { lightCue, newFunction, shown } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import { partInput } from '../../design/inputs.ts';
import { bindKey } from '../panelEdits.ts';
import { setOf, shinesAhead, shinesBack } from '../sideSets.ts';

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
    // White by its own key must not hold the boards that say who commands.
    lay: (b) =>
      aboveOthers(
        layByKey(b, {
          set: ['green', 'All with green', (m) => m.colours.includes('green')],
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
  {
    id: 'cruise',
    name: 'Cruise',
    what: 'A key shows the first colour of all that warns, steady and low, where nothing stronger is on.',
    misfit: (b) =>
      first(
        there(b, 'cruise'),
        some(b, (m) => m.warns && !m.factory, 'warning light'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'all-warning', 'All that warns', (m) => m.warns && !m.factory);
      const key = bindKey(build, 'cruise', 'Cruise', 'cruise');
      const low = lightCue(ofSet('all-warning'), 1, 'steady', { level: 0.15, dimmed: false });
      const cruise = newFunction('cruise', 'Cruise', 'warning', byKey(key.controlId), [low]);
      return addFunction(key.build, cruise, weakestStage(key.build));
    },
  },
  {
    id: 'pattern-key',
    name: 'Pattern key',
    what: 'Each press of a key shows another pattern in front in stages 2 and 3: two, then the stage’s own again.',
    misfit: (b) =>
      first(
        there(b, 'pattern-key'),
        laterStages(b).length === 0 ? 'there is no stage 2 or 3' : null,
        some(b, (m) => m.warns && !m.factory && shinesAhead(m), 'warning light ahead'),
      ),
    lay: (b) => {
      const { build } = setOf(
        b,
        'ahead-warning',
        'Warning ahead',
        (m) => m.warns && !m.factory && shinesAhead(m),
      );
      const key = bindKey(build, 'pattern-key', 'Pattern', 'pattern-key');
      const pattern = (patternId: string) =>
        shown([lightCue(ofSet('ahead-warning'), 1, patternId, { adds: true })]);
      return lay(
        key.build,
        newFunction(
          'pattern-key',
          'Pattern key',
          'warning',
          {
            way: 'cycle',
            sets: [],
            steps: [press(key.controlId)],
            clears: [],
            wraps: 'off',
            timeoutMs: 0,
          },
          [],
          {
            shows: [pattern('double'), pattern('triple')],
            enabledBy: any(...laterStages(key.build)),
            forgets: true,
          },
        ),
      );
    },
  },
];

/** The rank below all stages that light: what burns while nothing else does. */
function weakestStage(build: Build): number {
  const { functions } = build.controls;
  return functions.findLastIndex((fn) => fn.kind === 'stage' && fn.mode !== 0) + 1;
}
