import { effectsOf } from '../design/controls.ts';
import { changeStage } from '../../test/reference/places.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { withWhiteOfAnyLamp } from '../../test/reference/rules.ts';
import { addPlacement } from '../arrange/lamps.ts';
import { newBuild } from '../design/create.ts';
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
    /^No lamp is lit in Stage 1, Stage 2, Stage 3, where 4 rules require light\. Place a lamp on the drawing, then assign patterns under Timing\./,
  );
});

test('the rules are broken all the same', () => {
  const broken = checkBuild(empty).outcomes.filter((o) => o.verdict === 'broken');
  expect(broken.length).toBeGreaterThan(2);
});

test('lamps that show nothing are to get a pattern', () => {
  const [finding] = dark(bar);
  expect(finding?.home).toBe('timing');
  expect(finding?.sentence).toMatch(
    /^No lamp is lit in Stage 1, Stage 2, Stage 3, where 4 rules require light\. Assign a pattern to a sync group under Timing\./,
  );
  expect(ofLight(bar)).toEqual([]);
});

test('a stage that lights has its own findings, and a dark one is still told', () => {
  const lit = setCue(bar, 'stage-2', groupTarget(null), 1, lightCue(groupTarget(null), 1, 'single'));
  expect(dark(lit)[0]?.sentence).toMatch(
    /^No lamp is lit in Stage 1, Stage 3, where 4 rules require light\. Assign a pattern to a sync group under Timing\./,
  );
  expect(ofLight(lit).length).toBeGreaterThan(0);
  expect(ofLight(lit).every((f) => f.evidence.state?.on[0] === 'stage-2')).toBe(true);
});

test('asked of one state it speaks of that state alone', () => {
  const shut = checkBuild(empty, stateWith({ on: ['stage-3'] })).findings;
  expect(shut).toHaveLength(1);
  expect(shut[0]?.sentence).toMatch(
    /^No lamp is lit in Stage 3, where 3 rules require light\. Place a lamp on the drawing, then assign patterns under Timing\./,
  );
  expect(checkBuild(empty, stateWith({ on: ['off'] })).findings).toEqual([]);
});

test('a scene light alone that shows too much white is told as such, and not taken for a dark stage', () => {
  const pumper = withWhiteOfAnyLamp(demoBuild('tunnel-pumper-3'));
  const cues = effectsOf(pumper, 'stage-2')
    .cues.filter((c) => c.show === 'light' && c.target.kind === 'group' && c.target.groupId === 'inside')
    .map((c) => ({ ...c, level: 1, nightLevel: 1, nightPatternId: null }));
  const alone = changeStage(pumper, 2, { cues });
  const { findings } = checkBuild(alone);
  expect(findings.some((f) => f.kind === 'white-rear' && f.evidence.state?.on[0] === 'stage-2')).toBe(true);
  expect(dark(alone)).toEqual([]);
});
