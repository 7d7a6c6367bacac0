import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { describe, expect, test } from 'vitest';
import { addPartner } from '../arrange/lamps.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { addPattern } from '../design/patternEdits.ts';
import type { Build } from '../design/schema.ts';
import { addGroup, changeGroup } from '../design/timingEdits.ts';
import { iesOfState } from '../coverage/iesOfState.ts';
import { currentOf } from '../resolve/current.ts';
import { drivenIn } from '../state/driven.ts';
import { stateWith } from '../state/state.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { common, withRules } from '../../test/reference/rules.ts';
import { checkBuild } from './check.ts';
import type { Rule } from './registry.ts';

/* Changes of the code that the whole suite once let live, each with the test that ends it. */

const ref = (placementId: string) => [{ placementId, moduleId: 'm1' }];
const found = (build: Build) => checkBuild(build).findings.filter((f) => f.packId === 'test');

function inGroup(build: Build, lamp: string, group: string, patternId = 'single'): Build {
  const grouped = changeModules(addGroup(build, { id: group, name: group }), ref(lamp), { groupId: group });
  return setCue(grouped, 'stage-2', groupTarget(group), 1, lightCue(groupTarget(group), 1, patternId));
}

describe('mirrored partners on one clock', () => {
  const rule: Rule = { ...common, kind: 'sync-partners' };
  const pair = (speedPercent: number): Build => {
    const both = addPartner(put(withRules(rule), 'a', { zone: 'corner-rear-left' }), 'a', 'b');
    return changeGroup(inGroup(inGroup(both, 'a', 'ga'), 'b', 'gb'), 'gb', { followsId: 'ga', speedPercent });
  };
  test('with equal cycles keep step; with cycles of twice the length they do not', () => {
    expect(found(pair(100))).toEqual([]);
    expect(found(pair(50))[0]?.sentence).toMatch(/their patterns have different cycles\.$/);
  });
});

test('flashes of clocks that drift add up: two of two and two of one are three, not two', () => {
  const rule: Rule = { ...common, kind: 'flashes-a-second', faces: ['front'], aboveCd: 50, most: 1 };
  const two = put(put(withRules(rule), 'a', { zone: 'grille', uM: -0.2 }), 'b', { zone: 'grille', uM: 0.2 });
  // At 75 a minute two flashes begin in the busiest second of each.
  expect(found(inGroup(two, 'a', 'ga'))[0]?.figure?.value).toBe(2);
  expect(found(inGroup(inGroup(two, 'a', 'ga'), 'b', 'gb'))[0]?.figure?.value).toBe(4);
});

test('a lamp on the centreline lights both sides', () => {
  const rule: Rule = { ...common, kind: 'side-dark', maxMs: 600 };
  const side = inGroup(put(withRules(rule), 'l', { zone: 'sill-left' }), 'l', 'gl', 'slow-alternate');
  expect(found(side).map((f) => f.evidence.channels.length)).toEqual([1]);
  const middle = inGroup(put(side, 'm', { zone: 'front-bumper', uM: 0 }), 'm', 'gm', 'single');
  // The middle lamp is never dark for more than 580 ms, on the left as on the right.
  expect(found(middle)).toEqual([]);
  const at = (uM: number) =>
    found(inGroup(put(withRules(rule), 'm', { zone: 'front-bumper', uM }), 'm', 'gm', 'slow-alternate')).map(
      (f) => f.evidence.channels.length,
    );
  // 50 mm to either side are the middle.
  expect([-0.051, -0.049, 0, 0.049, 0.051].map((uM) => at(uM).length)).toEqual([1, 2, 2, 2, 1]);
});

test('a steady channel at half its level draws half its current', () => {
  const half = addPattern(emptyBuild(), {
    kind: 'drawn',
    id: 'half',
    name: 'Half',
    by: 'phase',
    cycleMs: 1000,
    lines: [[{ fromMs: 0, toMs: 1000, level: 0.5 }]],
  });
  const amps = (patternId: string) => {
    const { meanA, worstA } = currentOf(
      drivenIn(inGroup(put(half, 'a', { zone: 'grille' }), 'a', 'g', patternId), {
        on: ['stage-2'],
        ambient: 'day',
      }),
    );
    return [meanA, worstA.value];
  };
  const [whole = 0] = amps('steady');
  expect(whole).toBeGreaterThan(0);
  expect(amps('half')).toEqual([whole / 2, whole / 2]);
});

test('the watts of a vehicle’s IES file are its mean current at 12.8 V', () => {
  const build = inGroup(put(emptyBuild(), 'a', { zone: 'grille' }), 'a', 'g', 'steady');
  const { meanA } = currentOf(drivenIn(build, { on: ['stage-2'], ambient: 'day' }));
  const lines = iesOfState(build, stateWith({ on: ['stage-2'] })).split('\r\n');
  const watts = Number(lines[lines.findIndex((l) => l.startsWith('TILT')) + 2]?.split(' ')[2]);
  expect(watts).toBeCloseTo(meanA * 12.8, 2);
  expect(Math.abs(watts - meanA * 12)).toBeGreaterThan(0.05);
});

describe('the rate of flashes', () => {
  const rule: Rule = { ...common, kind: 'flash-rate', minPerMinute: 76, maxPerMinute: 120 };
  const lit = (patternId: string, build = withRules(rule)): Build =>
    inGroup(put(build, 'a', { zone: 'grille' }), 'a', 'g', patternId);

  test('is said with its figure, both limits and the channels', () => {
    const [finding] = found(lit('single'));
    expect(finding?.sentence).toMatch(/^Single flash on Grille: 75 flashes\/min \(permitted 76 to 120\)\./);
    expect(finding?.figure).toEqual({ value: 75, unit: '/min' });
    expect(finding?.limits.map(({ value, unit }) => [value, unit])).toEqual([
      [76, '/min'],
      [120, '/min'],
    ]);
    expect(finding?.evidence.channels).toHaveLength(1);
  });
  test('of one part that is too slow and one that is right is the slow one’s', () => {
    const both = addPattern(withRules(rule), {
      kind: 'sequence',
      id: 'both',
      name: 'Both',
      parts: [
        { patternId: 'slow-alternate', times: 4 },
        { patternId: 'single-quick', times: 8 },
      ],
    });
    expect(found(lit('both', both))[0]?.figure?.value).toBe(48);
  });
  test('of a light to see by is nobody’s business', () => {
    const flood = put(withRules(rule), 'a', { zone: 'roof-side-left', fixture: 'scene-flood' });
    expect(found(inGroup(flood, 'a', 'g', 'slow-alternate'))).toEqual([]);
  });
});

test('partners out of step are both pointed at; one that is dark is out of step, whichever it is', () => {
  const rule: Rule = { ...common, kind: 'sync-partners' };
  const both = addPartner(put(withRules(rule), 'a', { zone: 'corner-rear-left' }), 'a', 'b');
  const [drifting] = found(inGroup(inGroup(both, 'a', 'ga'), 'b', 'gb'));
  expect(drifting?.evidence.channels.map((c) => c.placementId).toSorted()).toEqual(['a', 'b']);
  for (const lamp of ['a', 'b'])
    expect(found(inGroup(both, lamp, 'g')).map((f) => f.sentence)).toEqual([
      expect.stringMatching(/one flashes and the other does not/),
    ]);
});

test('one cue with a pattern for the night makes the night a state of its own', () => {
  const two = inGroup(
    inGroup(
      put(put(emptyBuild(), 'a', { zone: 'grille', uM: -0.2 }), 'b', { zone: 'grille', uM: 0.2 }),
      'a',
      'ga',
    ),
    'b',
    'gb',
  );
  const night = setCue(
    two,
    'stage-2',
    groupTarget('gb'),
    1,
    lightCue(groupTarget('gb'), 1, 'single', { nightPatternId: 'steady' }),
  );
  const patterns = (ambient: 'day' | 'night') =>
    drivenIn(night, { on: ['stage-2'], ambient }).map((d) => d.patternId);
  expect(patterns('day')).toEqual(['single', 'single']);
  expect(patterns('night')).toEqual(['single', 'steady']);
});
