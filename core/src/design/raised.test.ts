import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { raisablesOf } from './raised.ts';
import { defaultSpec } from '../vehicle/spec.ts';

const onPole = (poleM: number, heights: readonly (readonly [string, number])[]) =>
  put({ ...emptyBuild(), vehicle: defaultSpec('pickup', ['mast-board']) }, 'flood', {
    zone: 'mast-rear',
    poleM,
    heights: heights.map(([id, height]) => ({ id, name: id, poleM: height })),
  });

test.each([
  ['a pole that can be raised', 0.2, [['up', 1.5]], ['up']],
  ['a pole that stands up as it was put', 1.5, [['stowed', 0.2]], ['home']],
  [
    'a pole with a height between',
    0.8,
    [
      ['up', 1.5],
      ['stowed', 0.2],
    ],
    ['home', 'up'],
  ],
  ['a pole with the same height twice', 0.5, [['again', 0.5]], []],
] as const)('%s', (_, poleM, heights, values) => {
  const raised = raisablesOf(onPole(poleM, heights)).filter(({ input }) => input !== 'part.mast');
  expect(raised.flatMap((one) => one.values)).toEqual(values);
  expect(raised).toHaveLength(values.length > 0 ? 1 : 0);
});

test('a mast stands raised at each of its stops; an aim is no height', () => {
  const raised = raisablesOf(demoBuild('line-marking'));
  expect(raised.map(({ input, values }) => [input, values.length])).toEqual([['part.mast', 1]]);
});
