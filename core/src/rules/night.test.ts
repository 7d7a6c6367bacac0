import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { describe, expect, test } from 'vitest';
import { addPartner } from '../arrange/lamps.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build } from '../design/schema.ts';
import { addGroup, changeGroup } from '../design/timingEdits.ts';
import { put, changeStage } from '../../test/reference/places.ts';
import { common, withRules } from '../../test/reference/rules.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import type { Rule } from './registry.ts';

/** A head on a zone that shows one pattern by day and another at night, in stage 2. */
function dayAndNight(patternId: string, nightPatternId: string | null, rule: Rule): Build {
  const lamp = put(withRules(rule), 'a', { zone: 'rear-bumper', uM: 0.2 });
  const ref = [{ placementId: 'a', moduleId: 'm1' }];
  const grouped = changeModules(addGroup(lamp, { id: 'g', name: 'G' }), ref, { groupId: 'g' });
  return setCue(
    grouped,
    'stage-2',
    groupTarget('g'),
    1,
    lightCue(groupTarget('g'), 1, patternId, { nightPatternId }),
  );
}

const found = (build: Build): Finding[] => checkBuild(build).findings.filter((f) => f.packId === 'test');
const ambients = (build: Build) => found(build).map((f) => f.evidence.state?.ambient);

const KINDS: readonly [string, Rule, string, string][] = [
  [
    'flash rate',
    { ...common, kind: 'flash-rate', minPerMinute: 60, maxPerMinute: 90 },
    'single',
    'slow-then-quick',
  ],
  ['pulses', { ...common, kind: 'pulses', most: 1 }, 'single', 'triple'],
  ['side dark', { ...common, kind: 'side-dark', maxMs: 600 }, 'single', 'slow-alternate'],
  [
    'flashes a second, at the seizure limit',
    { ...common, kind: 'flashes-a-second', faces: ['rear'], aboveCd: 20, most: 3 },
    'single',
    'triple-quick',
  ],
  [
    'dark gap',
    { ...common, kind: 'dark-gap', faces: ['rear'], thresholdCd: 4, maxMs: 600 },
    'steady',
    'slow-alternate',
  ],
  [
    'power ceiling',
    { ...common, kind: 'power-ceiling', faces: ['rear'], ambient: 'any', maxCdsPerMin: 60_000 },
    'single',
    'steady',
  ],
  [
    'colour, steady',
    {
      ...common,
      kind: 'colour',
      verdict: 'never',
      colours: ['red'],
      faces: ['rear'],
      light: 'steady',
      aboveCd: 10,
    },
    'single',
    'steady',
  ],
];

describe('a night pattern is checked like one by day, by every kind of rule', () => {
  test.each(KINDS)('%s', (_, rule, day, night) => {
    expect(found(dayAndNight(day, null, rule))).toEqual([]);
    expect(ambients(dayAndNight(day, night, rule))).toEqual(['night']);
    const [first] = found(dayAndNight(day, night, rule));
    expect(first?.evidence.state).toMatchObject({ on: ['stage-2'], ambient: 'night' });
  });

  test('partners out of step at night alone', () => {
    const rule: Rule = { ...common, kind: 'sync-partners' };
    const pair = addPartner(dayAndNight('single', null, rule), 'a', 'b');
    // On one clock at another speed the partner's cycle differs: by day both are steady.
    const slow = changeGroup(addGroup(pair, { id: 's', name: 'S' }), 's', {
      followsId: 'g',
      speedPercent: 50,
    });
    const split = changeModules(slow, [{ placementId: 'b', moduleId: 'm1' }], { groupId: 's' });
    const cued = ['g', 's'].reduce((b, id) => {
      const cue = lightCue(groupTarget(id), 1, 'steady', { nightPatternId: 'single' });
      return setCue(b, 'stage-2', cue.target, 1, cue);
    }, split);
    expect(found(cued).map((f) => f.sentence)).toEqual([
      expect.stringMatching(
        /^Rear bumper R and Rear bumper L are a mirrored pair but not synchronised: their patterns have different cycles\./,
      ),
    ]);
  });

  test('dimming alone is not said again, and what only dimming breaks is', () => {
    const ceiling: Rule = {
      ...common,
      kind: 'power-floor',
      faces: ['rear'],
      level: 'any',
      ambient: 'any',
      minCdsPerMin: 100,
      poses: ['shut'],
    };
    const dimmed = (rule: Rule) => changeStage(dayAndNight('single', null, rule), 2, { nightLevel: 0.1 });
    const colour: Rule = {
      ...common,
      kind: 'colour',
      verdict: 'never',
      colours: ['red'],
      faces: ['rear'],
      light: 'any',
      aboveCd: 10,
    };
    expect(ambients(dimmed(colour))).toEqual(['day']);
    // At the edges of the face the head sends little: by day enough, at a tenth not.
    const least = Math.min(
      ...found(dayAndNight('single', null, { ...ceiling, minCdsPerMin: 1e6 })).map(
        (f) => f.figure?.value ?? 0,
      ),
    );
    expect(ambients(dimmed({ ...ceiling, minCdsPerMin: Math.max(least * 0.9, 1e-6) }))).toEqual(['night']);
  });
});
