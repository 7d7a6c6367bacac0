import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { addPlacement } from '../arrange/lamps.ts';
import { newBuild } from '../design/create.ts';
import { setCue } from '../design/timingEdits.ts';
import type { Build } from '../design/schema.ts';
import { stateWith } from '../state/state.ts';
import { checkBuild } from './check.ts';

const packs = demoBuild('ks-12').rulePacks;
const empty = newBuild('77777777-7777-4777-8777-777777777777', 'Test', 'police', packs, 'mid-suv');
const bar = addPlacement(empty, { id: 'bar', fixtureId: 'roof-bar-1200', zoneId: 'roof', uM: 0, vM: 0 });
const ofLight = (build: Build) =>
  checkBuild(build).findings.filter((f) => ['power-floor', 'dark-gap'].includes(f.kind));
const dark = (build: Build) => checkBuild(build).findings.filter((f) => f.kind === 'nothing-lights');

test('with no lamp yet, what rules miss is one sentence that says the next step', () => {
  expect(checkBuild(empty).findings).toHaveLength(1);
  const [finding] = dark(empty);
  expect(finding).toMatchObject({ severity: 'blocks', home: 'layout' });
  expect(finding?.sentence).toMatch(
    /^Nothing lights yet in Stage 1, Stage 2, Stage 3, where \d+ rules ask for light\. Place a lamp/,
  );
});

test('the rules are broken all the same', () => {
  const broken = checkBuild(empty).outcomes.filter((o) => o.verdict === 'broken');
  expect(broken.length).toBeGreaterThan(2);
});

test('lamps that show nothing are to get a pattern', () => {
  const [finding] = dark(bar);
  expect(finding?.home).toBe('timing');
  expect(finding?.sentence).toMatch(/Give a group of lamps a pattern there, in Timing\.$/);
  expect(ofLight(bar)).toEqual([]);
});

test('a stage that lights has its own findings, and a dark one is still told', () => {
  const lit = setCue(bar, 2, null, 1, {
    groupId: null,
    slot: 1,
    level: 1,
    patternId: 'single',
    nightPatternId: null,
  });
  expect(dark(lit)[0]?.sentence).toMatch(/yet in Stage 1, Stage 3, where/);
  expect(ofLight(lit).length).toBeGreaterThan(0);
  expect(ofLight(lit).every((f) => f.evidence.state?.stage === 2)).toBe(true);
});

test('asked of one state it speaks of that state alone', () => {
  const shut = checkBuild(empty, stateWith({ stage: 3 })).findings;
  expect(shut).toHaveLength(1);
  expect(shut[0]?.sentence).toMatch(/yet in Stage 3, where/);
  expect(checkBuild(empty, stateWith({ stage: 0 })).findings).toEqual([]);
});

test('a scene light alone that shows too much white is told as such, and not taken for a dark stage', () => {
  const pumper = demoBuild('tunnel-pumper-3');
  const [stage] = pumper.timing.stages.slice(2, 3);
  if (stage === undefined) throw new Error('there is a stage 2');
  const cues = stage.cues
    .filter((c) => c.groupId === 'inside')
    .map((c) => ({ ...c, level: 1, nightPatternId: null }));
  const alone: Build = {
    ...pumper,
    timing: {
      ...pumper.timing,
      stages: pumper.timing.stages.map((s, i) => (i === 2 ? { ...s, cues } : s)),
    },
  };
  const { findings } = checkBuild(alone);
  expect(findings.some((f) => f.kind === 'white-rear' && f.evidence.state?.stage === 2)).toBe(true);
  expect(dark(alone)).toEqual([]);
});
