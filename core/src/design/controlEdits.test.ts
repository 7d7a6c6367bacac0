import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { addFunction, freeFunctionName, rankOfNew } from './controlEdits.ts';
import { newFunction } from './functions.ts';

test('a new function goes below signals and what takes light away, and above the rest', () => {
  const build = demoBuild('ks-12');
  const at = rankOfNew(build);
  const { functions } = build.controls;
  expect(functions.slice(at).some(({ kind }) => kind === 'signal' || kind === 'cut')).toBe(false);
  expect(['signal', 'cut']).toContain(functions[at - 1]?.kind);
  expect(rankOfNew({ ...build, controls: { ...build.controls, functions: [] } })).toBe(0);
});

test('its name is one that no other has', () => {
  const name = 'New function';
  let build = demoBuild('ks-12');
  const names = Array.from({ length: 3 }, (_, i) => {
    const free = freeFunctionName(build, name);
    build = addFunction(build, newFunction(`n${i}`, free, 'warning', { way: 'always' }, []));
    return free;
  });
  expect(names).toEqual(['New function', 'New function 2', 'New function 3']);
});
