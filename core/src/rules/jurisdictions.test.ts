import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import type { Build } from '../design/schema.ts';
import { stateWith } from '../state/state.ts';
import type { Finding, RuleOutcome } from './finding.ts';
import { jurisdictionResults } from './jurisdictions.ts';
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
const build: Build = { ...car, rulePacks: [{ ...packOf(noRed), jurisdictions: [AWAY] }] };
const outcome = (verdict: RuleOutcome['verdict']): RuleOutcome => ({
  packId: 'test',
  ruleId: 'no-red',
  verdict,
  margin: null,
  statesChecked: 1,
});
const broken = (on: string[], patch: Partial<Finding> = {}): Finding => ({
  outcome: 'fails',
  id: `test|no-red|${on.join()}||day|rear`,
  subjects: [{ kind: 'face', id: 'rear' }],
  packId: 'test',
  packName: 'Test',
  ruleId: 'no-red',
  kind: 'colour',
  home: 'layout',
  severity: 'blocks',
  clause: '1',
  sentence: 'Red shows.',
  figure: null,
  limits: [],
  evidence: { state: stateWith({ on }), channels: [], sectors: [], steps: [] },
  ...patch,
});
const mustBeOff = (...findings: Finding[]) =>
  jurisdictionResults(build, [outcome('broken')], findings).find(({ jurisdiction }) => jurisdiction === AWAY)
    ?.mustBeOff;

test('a pack speaks where it holds, and nowhere else', () => {
  const [home, away] = jurisdictionResults(build, [outcome('broken')], [broken(['stage-2'])]);
  expect([home?.jurisdiction, away?.jurisdiction]).toEqual([HOME, AWAY]);
  expect([home?.packs, home?.broken, home?.mustBeOff]).toEqual([[], [], []]);
  expect(away?.broken).toHaveLength(1);
  expect(away?.mustBeOff).toEqual(['Stage 2']);
  const [, untold] = jurisdictionResults(build, [outcome('cannot tell')], []);
  expect([untold?.broken.length, untold?.inconclusive.length]).toEqual([0, 1]);
  expect(away?.inconclusive).toEqual([]);
  expect(away?.passed).toEqual([]);
  const [elsewhere, held] = jurisdictionResults(build, [outcome('holds')], []);
  expect([elsewhere?.passed.length, held?.passed.length]).toEqual([0, 1]);
  // Before anything is checked nothing has passed.
  expect(jurisdictionResults(build, [], []).flatMap(({ passed }) => passed)).toEqual([]);
});

test('what must be off is said once: not again with a key besides, nor what only warns, nor a fault with nothing on', () => {
  const alley = broken(['stage-2', 'alley-left']);
  expect(mustBeOff(alley, broken(['stage-2']), broken(['stage-2']))).toEqual(['Stage 2']);
  // What is on in both is neither's own.
  const other = broken(['stage-2', 'alley-right', 'white']);
  expect(mustBeOff(alley, other)).toEqual(['Stage 2, Left alley', expect.stringContaining('Right alley')]);
  const nowhere = broken([], { evidence: { state: null, channels: [], sectors: [], steps: [] } });
  expect(mustBeOff(nowhere)).toEqual([]);
  expect(mustBeOff(alley)).toEqual(['Stage 2, Left alley']);
  expect(mustBeOff(alley, broken(['stage-3']))).toEqual(['Stage 3', 'Stage 2, Left alley']);
  expect(mustBeOff(broken(['stage-3']), broken(['stage-1']), broken(['stage-2']))).toEqual([
    'Stage 1',
    'Stage 2',
    'Stage 3',
  ]);
  expect(mustBeOff(broken(['stage-2'], { severity: 'warns' }))).toEqual([]);
  expect(mustBeOff(broken([]), broken(['stage-1']))).toEqual(['Stage 1']);
});
