import { expect, test } from 'vitest';
import { emptyBuild } from '../../test/reference/places.ts';
import { addFunction } from '../design/controlEdits.ts';
import { newFunction, type FunctionKind } from '../design/functions.ts';
import { checkedFunctionSets, modeOf } from './state.ts';

const withFunction = (kind: FunctionKind, mode: 0 | 1 | 2 | 3 | null, rank: number) =>
  addFunction(emptyBuild(), newFunction('f', 'F', kind, { way: 'always' }, [], { mode }), rank);

test('the strongest stage or warning with a mode says it; a supplement leaves it to others', () => {
  expect(modeOf(emptyBuild(), [])).toBe(0);
  expect(modeOf(emptyBuild(), ['stage-1', 'stage-3'])).toBe(3);
  expect(modeOf(withFunction('warning', 1, 0), ['f', 'stage-3'])).toBe(1);
  expect(modeOf(withFunction('warning', 1, 9), ['f', 'stage-3'])).toBe(3);
  expect(modeOf(withFunction('warning', null, 0), ['f', 'stage-2'])).toBe(2);
});

test('light to see by has no mode, whatever it is marked with, and is not checked as warning', () => {
  expect(modeOf(withFunction('light', 0, 0), ['f', 'stage-2'])).toBe(2);
  const build = withFunction('light', 1, 0);
  expect(modeOf(build, ['f', 'stage-2'])).toBe(2);
  expect(checkedFunctionSets(build)).toEqual(['off', 'stage-1', 'stage-2', 'stage-3']);
  expect(checkedFunctionSets(withFunction('warning', 2, 0))).toContain('f');
});
