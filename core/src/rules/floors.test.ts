import { expect, test } from 'vitest';
import { common, withRules } from '../../test/reference/rules.ts';
import { stateWith } from '../state/state.ts';
import { floorsIn } from './floors.ts';
import type { Rule, RuleOf } from './registry.ts';

const floor = (patch: Partial<RuleOf<'power-floor'>>): Rule => ({
  ...common,
  kind: 'power-floor',
  faces: ['rear'],
  level: 'any',
  ambient: 'day',
  minCdsPerMin: 100,
  poses: ['shut'],
  lamps: 'warning',
  elevationsDeg: [-5, 0, 5],
  ...patch,
});
const stage2 = stateWith({ on: ['stage-2'] });

test('the highest of the floors that speak here, toward the faces they name', () => {
  const build = withRules(
    floor({}),
    floor({ id: 'side', faces: ['right'], minCdsPerMin: 300 }),
    floor({ id: 'less', faces: ['right', 'rear'], minCdsPerMin: 50 }),
    floor({ id: 'third', stages: [3], minCdsPerMin: 1000 }),
    floor({ id: 'upper', level: 'upper', minCdsPerMin: 2000 }),
    {
      ...common,
      kind: 'power-ceiling',
      id: 'c',
      faces: ['front'],
      ambient: 'day',
      maxCdsPerMin: 7,
      lamps: 'warning',
    },
  );
  const floors = floorsIn(build, stage2, 'any');
  expect([0, 44, 90, 135, 180, 270].map((b) => floors[b])).toEqual([0, 0, 300, 300, 100, 0]);
  expect(floorsIn(build, stage2, 'upper')[180]).toBe(2000);
  expect(floorsIn(build, stateWith({ on: ['stage-3'] }), 'any')[180]).toBe(1000);
});

test('asked at an elevation, a floor counts that looks from there among others', () => {
  const build = withRules(floor({}));
  expect(floorsIn(build, stage2, 'any', (deg) => deg === 5)[180]).toBe(100);
  expect(floorsIn(build, stage2, 'any', (deg) => deg === 6)[180]).toBe(0);
});
