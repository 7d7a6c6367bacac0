import { describe, expect, test } from 'vitest';
import { checkBuild } from '@flarik/core/rules/check';
import { findingsOf, STEPS } from './steps';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

describe('findings by step', () => {
  const { findings } = checkBuild(build);
  test('each has one home; Rules has all', () => {
    const homes = STEPS.filter((s) => s.id !== 'rules').map((s) => findingsOf(s.id, findings).length);
    expect(homes.reduce((a, b) => a + b, 0)).toBe(findings.length);
    expect(findingsOf('rules', findings)).toEqual(findings);
  });
  test('flash rates belong to Timing, floors to Visibility', () => {
    expect(findingsOf('timing', findings).some((f) => f.kind === 'flash-rate')).toBe(true);
    expect(findingsOf('visibility', findings).every((f) => f.kind === 'power-floor')).toBe(true);
  });
});
