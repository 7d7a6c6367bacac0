import {
  is,
  not,
  byKey,
  layByKey,
  ofSet,
  steady,
  white,
  some,
  there,
  first,
  applyTemplate,
  type FunctionTemplate,
} from './kit.ts';
import { lightCue, newFunction } from '../../design/functions.ts';
import type { Build } from '../../design/schema.ts';
import { bindKey } from '../panelEdits.ts';
import type { SetClause, SetPick } from '../../design/lampSets.ts';
import { FACES, faceText, type Face } from '../../words/face.ts';
import { forUse, anyMeets, shining, withRuledSet } from '../lampSets.ts';

/** What shines to see by goes out when the vehicle drives fast, and stays out until its key is pressed again. */
const OFF_AT_SPEED = { enabledBy: not(is('speed', 'fast')), forgets: true } as const;

/** Light to see by. */
export const READY_LIGHTS: readonly FunctionTemplate[] = [
  {
    id: 'white-override',
    name: 'White override',
    what: 'A key makes the inner half of the highest forward white steady, with or without warning. Other lamps continue flashing.',
    misfit: (b) => first(there(b, 'white'), some(b, [white, shining('front')], 'white light ahead')),
    applyTemplate: (b) =>
      layByKey(b, {
        set: ['white-ahead', 'White ahead', [white, shining('front')], 'inner'],
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
    what: 'One key per side lights steady white to that side on the highest lamp. It switches off at speed. Other lamps continue flashing.',
    misfit: (b) =>
      first(there(b, 'alley-left'), some(b, [white, shining('left', 'right')], 'white light to a side')),
    applyTemplate: (b) =>
      (['left', 'right'] as const).reduce((build, side) => {
        const id = `alley-${side}`;
        const name = `${side === 'left' ? 'Left' : 'Right'} alley`;
        const clauses = [white, shining(side)];
        if (!anyMeets(build, clauses)) return build;
        return layByKey(build, {
          set: [id, name, clauses, 'foremost'],
          key: [id, name],
          id,
          name,
          kind: 'light',
          cues: [steady(id, 'white')],
          more: OFF_AT_SPEED,
        });
      }, b),
  },
  {
    id: 'scene-round',
    name: 'Scene all round',
    what: 'A key lights steady white to all four sides on the highest lamp of each. It switches off at speed. Other lamps continue flashing.',
    misfit: (b) =>
      first(
        there(b, 'scene-round'),
        facesWithWhite(b).length < 2 ? 'there is white light to less than two sides' : null,
      ),
    applyTemplate: (b) => {
      const faces = facesWithWhite(b);
      const setId = (face: Face): string => `scene-${face}`;
      const build = faces.reduce(
        (so, face) =>
          withRuledSet(so, setId(face), `Scene ${faceText[face]}`, whiteTo(face), pickOf(face)).build,
        b,
      );
      const key = bindKey(build, 'scene-round', 'All round', 'scene-round');
      return applyTemplate(
        key.build,
        newFunction(
          'scene-round',
          'Scene all round',
          'light',
          byKey(key.controlId),
          faces.map((face) => steady(setId(face), 'white')),
          OFF_AT_SPEED,
        ),
      );
    },
  },
  {
    id: 'scene',
    name: 'Scene light',
    what: 'A key for flood and scene lights. They switch off at speed.',
    misfit: (b) => first(there(b, 'scene-light'), some(b, [forUse('light')], 'scene, work or cabin light')),
    applyTemplate: (b) =>
      layByKey(b, {
        set: ['scene-light', 'Scene lights', [forUse('light')]],
        key: ['scene-light', 'Scene'],
        id: 'scene-light',
        name: 'Scene light',
        kind: 'light',
        cues: [lightCue(ofSet('scene-light'), 1, 'steady')],
        more: OFF_AT_SPEED,
      }),
  },
];

/** White of warning heads to a side: what burns while the rest flashes. */
const whiteTo = (face: Face): SetClause[] => [white, forUse('warning'), shining(face)];
const facesWithWhite = (build: Build): Face[] => FACES.filter((face) => anyMeets(build, whiteTo(face)));
const pickOf = (face: Face): SetPick => (face === 'front' || face === 'rear' ? 'inner' : 'foremost');
