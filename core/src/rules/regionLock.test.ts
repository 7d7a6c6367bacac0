import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { controlsFailure } from '../design/controlEdits.ts';
import type { Build } from '../design/schema.ts';
import { checkWhole } from '../verification/checkWhole.ts';
import { drivenIn } from '../state/driven.ts';
import { readBuild } from './document.ts';
import { regionLock } from './regionLock.ts';
import type { Rule } from './registry.ts';

const car = demoBuild('ks-13');
const [HOME = '', AWAY = ''] = car.brief.jurisdictions;
const noRed: Rule = {
  ...common,
  kind: 'colour',
  id: 'no-red',
  stages: [1, 2, 3],
  verdict: 'never',
  colours: ['red'],
  faces: ['rear'],
  light: 'any',
  aboveCd: 10,
};
const ruled = (rule: Rule, jurisdictions: string[]): Build => ({
  ...car,
  rulePacks: [{ ...packOf(rule), jurisdictions }],
});
const verdict = (build: Build): string | undefined =>
  checkWhole(build).outcomes.find(({ ruleId }) => ruleId === 'no-red')?.verdict;

test('keeps dark in a jurisdiction what its packs forbid there, and nothing elsewhere', () => {
  const build = ruled(noRed, [AWAY]);
  expect(verdict(build)).toBe('broken');
  expect(regionLock.misfit(build)).toBeNull();
  const laid = regionLock.applyTemplate(build);
  expect(controlsFailure(laid)).toBeNull();
  expect(readBuild(JSON.parse(JSON.stringify(laid)))).toEqual(laid);
  expect(verdict(laid)).toBe('holds');
  const locks = laid.controls.functions.filter(({ id }) => id.startsWith('region-lock'));
  expect(locks.map(({ name }) => name)).toEqual([`Lock for ${AWAY}`]);
  const reds = (on: string[]): number =>
    drivenIn(laid, { on, ambient: 'day' }).filter((d) => d.colour === 'red').length;
  const [lock] = locks;
  // Red ahead is not forbidden: it stays.
  expect(reds([lock?.id ?? '', 'stage-2'])).toBeGreaterThan(0);
  expect(reds([lock?.id ?? '', 'stage-2'])).toBeLessThan(reds(['stage-2']));
});

test('says why it cannot be laid', () => {
  expect(regionLock.misfit(ruled({ ...noRed, colours: ['purple'] }, [AWAY]))).toMatch(/^no lamp shows/);
  expect(regionLock.misfit(ruled({ ...noRed, severity: 'warns' }, [AWAY]))).toMatch(/^no lamp shows/);
  const one = { ...car, brief: { ...car.brief, jurisdictions: [HOME] } };
  expect(regionLock.misfit(one)).toMatch(/fewer than two/);
  expect(regionLock.misfit(regionLock.applyTemplate(ruled(noRed, [AWAY])))).toBe('it already exists');
});
