import { expect, test } from 'vitest';
import { common, withRules } from '../../test/reference/rules.ts';
import { put, stageId } from '../../test/reference/places.ts';
import { changeEffect } from '../design/controlEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { lightCue, shown } from '../design/functions.ts';
import { checkBuild } from './check.ts';
import type { Rule } from './registry.ts';

/** A work flood that looks to the rear, and a warning head beside it, both burning white in stage 2. */
function rearOf(rule: Rule, head: 'head' | 'no head') {
  const flood = put(withRules(rule), 'flood', { zone: 'roof', fixture: 'pole-flood', panDeg: 180 });
  const both = head === 'head' ? put(flood, 'head', { zone: 'rear-bumper' }) : flood;
  const white = both.placements.reduce(
    (b, p) =>
      changeModules(
        b,
        p.modules.map((m) => ({ placementId: p.id, moduleId: m.id })),
        { colours: ['white'] },
      ),
    both,
  );
  return checkBuild(
    changeEffect(white, stageId(2), shown([lightCue({ kind: 'ungrouped' }, 1, 'steady')])),
  ).findings.filter(({ packId }) => packId === 'test');
}
const noWhite = (lamps: 'warning' | 'all'): Rule => ({
  ...common,
  kind: 'white-rear',
  aboveCd: 40,
  of: 'sum',
  lamps,
});

test('light that a rule does not count and that passes its limit is a note', () => {
  const [note, ...others] = rearOf(noWhite('warning'), 'no head');
  expect(others).toEqual([]);
  expect(note?.severity).toBe('notes');
  expect(note?.sentence).toMatch(
    /^This rule counts warning lamps only\. With all lamps: white to the rear from Roof: 11,100 cd combined at 180° \(limit 40 cd\)\. Only steady reversing lamps are exempt\./,
  );
});

test('what the rule itself tells is not told again', () => {
  const said = rearOf(noWhite('warning'), 'head');
  expect(said.map(({ severity }) => severity)).toEqual(['blocks']);
});

test('a rule that counts all lamps leaves nothing out', () => {
  expect(rearOf(noWhite('all'), 'no head').map(({ severity }) => severity)).toEqual(['blocks']);
});

test('a floor has no light too many', () => {
  const floor: Rule = {
    ...common,
    kind: 'power-floor',
    faces: ['rear'],
    level: 'any',
    ambient: 'any',
    minCdsPerMin: 1,
    poses: ['shut'],
    lamps: 'warning',
  };
  expect(rearOf(floor, 'no head').map(({ severity }) => severity)).toEqual(['blocks']);
});
