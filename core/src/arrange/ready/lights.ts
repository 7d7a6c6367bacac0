import {
  is,
  not,
  all,
  any,
  during,
  byKey,
  layByKey,
  ofSet,
  steady,
  hasWhite,
  some,
  there,
  first,
  lay,
  type ReadyFunction,
} from './kit.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import { partInput } from '../../design/inputs.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import { bindKey } from '../panelEdits.ts';
import {
  choosable,
  foremostOfHighest,
  innerOfHighest,
  isOneOf,
  setOf,
  setOfThese,
  shinesAhead,
  shinesLeft,
  shinesRight,
} from '../sideSets.ts';

/** Light to see by. */
export const READY_LIGHTS: readonly ReadyFunction[] = [
  {
    id: 'white-override',
    name: 'White override',
    what: 'A key turns the inner half of the highest forward white steady, with or without warning; the rest goes on flashing.',
    misfit: (b) =>
      first(
        there(b, 'white'),
        some(b, (m) => hasWhite(m) && shinesAhead(m), 'white light ahead'),
      ),
    lay: (b) =>
      layByKey(b, {
        set: [
          'white-ahead',
          'White ahead',
          isOneOf(innerOfHighest(choosable(b).filter((m) => hasWhite(m) && shinesAhead(m)))),
        ],
        key: ['white', 'White'],
        id: 'white',
        name: 'White override',
        kind: 'light',
        cues: [steady('white-ahead', 'white')],
      }),
  },
  {
    id: 'alley',
    name: 'Alley lights',
    what: 'A key for each side burns white to that side, on the highest lamp there, and goes out at speed; the rest goes on flashing.',
    misfit: (b) =>
      first(
        there(b, 'alley-left'),
        some(b, (m) => hasWhite(m) && (shinesLeft(m) || shinesRight(m)), 'white light to a side'),
      ),
    lay: (b) =>
      (
        [
          ['left', shinesLeft],
          ['right', shinesRight],
        ] as const
      ).reduce((build, [side, shines]) => {
        const id = `alley-${side}`;
        const name = `${side === 'left' ? 'Left' : 'Right'} alley`;
        const there = foremostOfHighest(choosable(build).filter((m) => hasWhite(m) && shines(m)));
        const { build: withSet, set } = setOfThese(build, id, name, there);
        if (set.modules.length === 0) return build;
        const key = bindKey(withSet, id, name, id);
        return lay(
          key.build,
          newFunction(id, name, 'light', byKey(key.controlId), [steady(id, 'white')], {
            enabledBy: not(is('speed', 'fast')),
            forgets: true,
          }),
        );
      }, b),
  },
  {
    id: 'scene',
    name: 'Scene light',
    what: 'A key for the flood and scene lights; at speed they go out.',
    misfit: (b) =>
      first(
        there(b, 'scene-light'),
        some(b, (m) => !m.warns && !m.factory, 'scene, work or cabin light'),
      ),
    lay: (b) => {
      const { build } = setOf(b, 'scene-light', 'Scene lights', (m) => !m.warns && !m.factory);
      const key = bindKey(build, 'scene-light', 'Scene', 'scene-light');
      return lay(
        key.build,
        newFunction(
          'scene-light',
          'Scene light',
          'light',
          byKey(key.controlId),
          [lightCue(ofSet('scene-light'), 1, 'steady')],
          { enabledBy: not(is('speed', 'fast')), forgets: true },
        ),
      );
    },
  },
  {
    id: 'courtesy',
    name: 'Courtesy light',
    what: 'With a door open and the ignition off, light inside burns, and 30 s longer.',
    misfit: (b) =>
      first(
        there(b, 'courtesy'),
        some(b, (m) => !m.warns && !m.factory, 'scene, work or cabin light'),
        vehicleOf(b.vehicle).parts.some((p) => p.kind === 'door') ? null : 'the vehicle has no doors',
      ),
    lay: (b) => {
      const { build } = setOf(b, 'inside', 'Inside', (m) => !m.warns && !m.factory);
      const doors = vehicleOf(build.vehicle).parts.filter((p) => p.kind === 'door');
      return lay(
        build,
        newFunction(
          'courtesy',
          'Courtesy light',
          'light',
          during(
            all(
              any(...doors.slice(0, 12).map((d) => is(partInput(d.id), ...d.stops.map((s) => s.id)))),
              is('ignition', 'off'),
            ),
            30_000,
          ),
          [lightCue(ofSet('inside'), 1, 'steady', { level: 0.3 })],
          { mayStay: true, withoutMaster: true },
        ),
      );
    },
  },
];
