import { describe, expect, test } from 'vitest';
import { causesOf } from '@flarik/core/rules/causes';
import { checkBuild } from '@flarik/core/rules/check';
import { causesIn, STEPS } from './steps';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

describe('what is wrong by step', () => {
  const causes = causesOf(build, checkBuild(build).findings);
  test('each has one home; Rules has all', () => {
    const homes = STEPS.filter((s) => s.id !== 'rules').map((s) => causesIn(s.id, causes).length);
    expect(homes.reduce((a, b) => a + b, 0)).toBe(causes.length);
    expect(causesIn('rules', causes)).toEqual(causes);
  });
  test('flash rates belong to Timing, floors to Visibility', () => {
    expect(causesIn('timing', causes).some(({ first }) => first.kind === 'flash-rate')).toBe(true);
    expect(causesIn('visibility', causes).every(({ first }) => first.kind === 'power-floor')).toBe(true);
  });
});
