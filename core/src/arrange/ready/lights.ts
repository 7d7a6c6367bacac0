import {
  is,
  not,
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
import type { Build } from '../../design/schema.ts';
import { bindKey } from '../panelEdits.ts';
import {
  choosable,
  foremostOfHighest,
  innerOfHighest,
  isOneOf,
  setOf,
  setOfThese,
  shinesAhead,
  shinesBack,
  shinesLeft,
  shinesRight,
  type Choosable,
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
    id: 'scene-round',
    name: 'Scene all round',
    what: 'A key burns white to all four sides, on the highest lamp of each; the rest goes on flashing, and it goes out at speed.',
    misfit: (b) =>
      first(
        there(b, 'scene-round'),
        sidesOf(b).filter((side) => side.length > 0).length < 2
          ? 'there is white light to less than two sides'
          : null,
      ),
    lay: (b) => {
      const { build } = setOfThese(b, 'scene-round', 'Scene all round', sidesOf(b).flat());
      const key = bindKey(build, 'scene-round', 'All round', 'scene-round');
      return lay(
        key.build,
        newFunction(
          'scene-round',
          'Scene all round',
          'light',
          byKey(key.controlId),
          [steady('scene-round', 'white')],
          {
            enabledBy: not(is('speed', 'fast')),
            forgets: true,
          },
        ),
      );
    },
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
];

/** White light to the front, the rear, the left and the right: what burns while the rest flashes. */
function sidesOf(build: Build): readonly (readonly Choosable[])[] {
  const white = choosable(build).filter((m) => hasWhite(m) && m.warns && !m.factory);
  return [
    innerOfHighest(white.filter(shinesAhead)),
    innerOfHighest(white.filter(shinesBack)),
    foremostOfHighest(white.filter(shinesLeft)),
    foremostOfHighest(white.filter(shinesRight)),
  ];
}
