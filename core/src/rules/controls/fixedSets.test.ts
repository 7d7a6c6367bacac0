import { expect, test } from 'vitest';
import { emptyBuild, ofKind, put } from '../../../test/reference/places.ts';
import { forUse } from '../../arrange/lampSets.ts';
import { addFunction, putSet } from '../../design/controlEdits.ts';
import { darkCue, newFunction, type FunctionKind } from '../../design/functions.ts';
import { fixedSet, ruledSet } from '../../design/lampSets.ts';

const two = ['grille', 'front-bumper'].reduce((b, zone) => put(b, zone, { zone }), emptyBuild());
const cut = (modules: string[], kind: FunctionKind = 'cut') =>
  addFunction(
    putSet(
      two,
      fixedSet(
        's',
        'Heads',
        modules.map((placementId) => ({ placementId, moduleId: 'm1' })),
      ),
    ),
    newFunction('calm', 'Calm', kind, { way: 'always' }, [darkCue({ kind: 'set', setId: 's' })]),
  );
const told = (build: Parameters<typeof ofKind>[0]): string[] =>
  ofKind(build, 'fixed-set').map(({ sentence }) => sentence);

test('a cut that leaves out a head like its own is told, with the head', () => {
  expect(told(cut(['grille']))).toEqual([
    'Calm uses the fixed lamp set Heads. It omits 1 module of the same kind, such as Front bumper. Add them or define the set by rule.',
  ]);
  expect(told(cut(['grille', 'front-bumper']))).toEqual([]);
});

test('what shows light may leave heads out, and a rule leaves out none', () => {
  expect(told(cut(['grille'], 'warning'))).toEqual([]);
  expect(told(putSet(cut(['grille']), ruledSet('s', 'Heads', [forUse('warning')])))).toEqual([]);
});
