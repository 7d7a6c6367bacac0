import { changeStage } from '../../test/reference/places.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { addGroup, changeGroup } from '../design/timingEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { readRulePack } from './document.ts';
import { ruleSentence, type Rule, type RuleOf } from './registry.ts';
import type { RulePack } from '../design/rulePack.ts';
import { describe, expect, test } from 'vitest';
import { Situation } from './situation.ts';
import { stateWith } from '../state/state.ts';
import { newBuild } from '../design/create.ts';
import { addPartner, addPlacement, changePlacement, setColour } from '../arrange/lamps.ts';
import type { Build } from '../design/schema.ts';
import type { Colour } from '../words/colour.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import { DEMO_BUILDS, demoBuild, demoPack } from '../../test/reference/demo.ts';
import { common } from '../../test/reference/rules.ts';

const pack = (...rules: Rule[]): RulePack => ({ ...demoPack(), rules });

/** One head on a zone, in a group, showing a pattern in stage 2. */
function lampOn(zoneId: string, colour: Colour, patternId: string, rules: Rule[], pan = 0): Build {
  const ref = [{ placementId: 'a', moduleId: 'm1' }];
  const start = newBuild('33333333-3333-4333-8333-333333333333', 'Test', 'police', [pack(...rules)]);
  const placed = addPlacement(start, { id: 'a', fixtureId: 'perimeter-head-2', zoneId, uM: 0.2, vM: 0 });
  const aimed = changePlacement(placed, 'a', { panDeg: pan });
  const grouped = changeModules(addGroup(setColour(aimed, ref, 1, colour), { id: 'g', name: 'G' }), ref, {
    groupId: 'g',
  });
  return setCue(grouped, 'stage-2', groupTarget('g'), 1, lightCue(groupTarget('g'), 1, patternId));
}

/** What the packs find; the layout has its own tests. */
const byPacks = (build: Build): Finding[] => checkBuild(build).findings.filter((f) => f.packId !== 'layout');
const sentences = (build: Build): string[] => byPacks(build).map((f) => f.sentence);

describe('colour', () => {
  const rule: RuleOf<'colour'> = {
    kind: 'colour',
    ...common,
    verdict: 'only',
    colours: ['red'],
    faces: ['rear'],
    light: 'any',
    aboveCd: 10,
  };

  test('blue to the rear is found, red is not, blue to the front is not', () => {
    const broken = byPacks(lampOn('rear-bumper', 'blue', 'single', [rule]));
    // Peak of a two-colour head in blue: 2300 · 0.55 = 1265 cd, on its axis at 180°.
    expect(broken[0]).toMatchObject({
      figure: { value: 1265, unit: 'cd' },
      evidence: { channels: [{ placementId: 'a', moduleId: 'm1', slot: 1 }] },
    });
    expect(broken[0]?.sentence).toMatch(
      /^Blue to the rear: 1,270 cd combined at 180° \(limit 10 cd\), from Rear bumper R\. Permitted: red\./,
    );
    expect(sentences(lampOn('rear-bumper', 'red', 'single', [rule]))).toEqual([]);
    expect(sentences(lampOn('grille', 'blue', 'single', [rule]))).toEqual([]);
  });

  test('steady and flashing are told apart', () => {
    const steady: RuleOf<'colour'> = { ...rule, light: 'steady' };
    expect(sentences(lampOn('rear-bumper', 'blue', 'single', [steady]))).toEqual([]);
    expect(sentences(lampOn('rear-bumper', 'blue', 'steady', [steady]))).toHaveLength(1);
  });

  test('"never" forbids what it lists; a service the rule does not name is left alone', () => {
    const never: RuleOf<'colour'> = { ...rule, verdict: 'never', colours: ['blue'] };
    expect(sentences(lampOn('rear-bumper', 'blue', 'single', [never]))).toHaveLength(1);
    expect(sentences(lampOn('rear-bumper', 'red', 'single', [never]))).toEqual([]);
    const result = checkBuild(lampOn('rear-bumper', 'blue', 'single', [{ ...never, services: ['fire'] }]));
    expect(result.findings.filter((f) => f.packId !== 'layout')).toEqual([]);
    expect(result.outcomes[0]?.verdict).toBe('silent');
  });

  test('an open hatch that turns a lamp to the rear is named', () => {
    const lip = lampOn('hatch-lip', 'blue', 'single', [rule]);
    const heads = { ...lip, placements: lip.placements.map((p) => ({ ...p, fixtureId: 'hatch-lip-head' })) };
    expect(byPacks(heads).map((f) => f.evidence.state?.open)).toEqual([['hatch']]);
  });
});

describe('white to the rear', () => {
  const rule: Rule = { kind: 'white-rear', ...common, aboveCd: 40 };
  test('is found; to the front it is not', () => {
    expect(sentences(lampOn('rear-bumper', 'white', 'steady', [rule]))[0]).toMatch(
      /^White to the rear from Rear bumper R: 4,370 cd combined at 180° \(limit 40 cd\)\. Only steady reversing lamps are exempt\./,
    );
    expect(sentences(lampOn('grille', 'white', 'steady', [rule]))).toEqual([]);
  });
});

describe('flash rate', () => {
  const rate = (min: number, max: number): Rule => ({
    kind: 'flash-rate',
    ...common,
    minPerMinute: min,
    maxPerMinute: max,
  });
  test.each([
    [60, 120, 0],
    [75, 75, 0],
    [76, 120, 1],
    [60, 74, 1],
  ])('75 a minute between %i and %i', (min, max, count) => {
    expect(sentences(lampOn('grille', 'red', 'single', [rate(min, max)]))).toHaveLength(count);
  });
  test('steady light has no rate', () =>
    expect(sentences(lampOn('grille', 'red', 'steady', [rate(60, 120)]))).toEqual([]));
});

describe('power floor', () => {
  const floor = (minCdsPerMin: number, more: Partial<RuleOf<'power-floor'>> = {}): Rule => ({
    kind: 'power-floor',
    ...common,
    faces: ['rear'],
    level: 'any',
    ambient: 'day',
    minCdsPerMin,
    poses: ['shut'],
    ...more,
  });
  // Steady 2300 cd on the axis is 138 000 cd·s/min at 180°, and at 135° 2300 · 2^−(45/22)² · 60.
  const least = 2300 * 2 ** -((45 / 22) ** 2) * 60;

  test('both sides of the limit', () => {
    expect(sentences(lampOn('rear-bumper', 'red', 'steady', [floor(least * 0.999)]))).toEqual([]);
    const [finding] = byPacks(lampOn('rear-bumper', 'red', 'steady', [floor(least * 1.001)]));
    expect(finding?.figure?.value).toBeCloseTo(least, 6);
    expect(finding?.evidence.sectors).toEqual([
      { fromDeg: 135, toDeg: 135 },
      { fromDeg: 225, toDeg: 225 },
    ]);
  });

  test('a lamp on the hatch is gone when the hatch is up, and only that pose is named', () => {
    const build = lampOn('hatch-panel-left', 'red', 'steady', [
      floor(least * 0.99, { poses: ['shut', 'hatch-open'] }),
    ]);
    const findings = byPacks(build);
    expect(findings.map((f) => f.evidence.state?.open)).toEqual([['hatch']]);
  });

  test('upper and lower lamps are told apart', () => {
    const low = lampOn('rear-bumper', 'red', 'steady', [floor(1, { level: 'upper' })]);
    expect(sentences(low)).toHaveLength(1);
    expect(sentences(lampOn('rear-bumper', 'red', 'steady', [floor(1, { level: 'lower' })]))).toEqual([]);
  });
});

describe('dark gap', () => {
  const gap = (maxMs: number): Rule => ({
    kind: 'dark-gap',
    ...common,
    faces: ['rear'],
    thresholdCd: 1,
    maxMs,
  });
  test('single flash is dark for 580 of 800 ms: both sides of the limit', () => {
    expect(sentences(lampOn('rear-bumper', 'red', 'single', [gap(580)]))).toEqual([]);
    expect(byPacks(lampOn('rear-bumper', 'red', 'single', [gap(579)]))[0]?.figure).toEqual({
      value: 580,
      unit: 'ms',
    });
  });
  test('no light at all is said, not measured', () => {
    const [finding] = byPacks(lampOn('grille', 'red', 'single', [gap(5000)]));
    expect(finding?.figure).toBeNull();
    expect(finding?.sentence).toMatch(
      /^Dark interval to the rear: unlimited \(limit 5,000 ms below 1 cd\)\. Affected: 135°–225°\./,
    );
  });
});

describe('sync partners', () => {
  const rule: Rule = { kind: 'sync-partners', ...common };
  const pair = addPartner(lampOn('wing-left', 'red', 'single', [rule]), 'a', 'b');

  test('one group keeps step', () => expect(sentences(pair)).toEqual([]));
  test('another group drifts', () => {
    const split = changeModules(
      addGroup(pair, { id: 'h', name: 'H' }),
      [{ placementId: 'b', moduleId: 'm1' }],
      { groupId: 'h' },
    );
    const lit = setCue(split, 'stage-2', groupTarget('h'), 1, lightCue(groupTarget('h'), 1, 'single'));
    expect(sentences(lit)[0]).toMatch(
      /^Front wing L and Front wing R are a mirrored pair but not synchronised: they are in different sync groups\./,
    );
    expect(sentences(split)[0]).toMatch(/one flashes and the other does not/);
  });
  test('no group drifts', () => {
    const free = changeModules(pair, [{ placementId: 'b', moduleId: 'm1' }], { groupId: null });
    const lit = setCue(free, 'stage-2', groupTarget(null), 1, lightCue(groupTarget(null), 1, 'single'));
    expect(sentences(lit)[0]).toMatch(
      /^Front wing L and Front wing R are a mirrored pair but not synchronised: one has no sync group and is free-running\./,
    );
  });
});

const ofKind = (build: Build, kind: string): Finding[] =>
  checkBuild(build).findings.filter((f) => f.kind === kind);

describe('the layout by itself', () => {
  const two = (uM: number, rollDeg = 0): Build => {
    const one = lampOn('grille', 'red', 'single', []);
    const placed = addPlacement(one, { id: 'b', fixtureId: 'perimeter-head-2', zoneId: 'grille', uM, vM: 0 });
    return changePlacement(placed, 'b', { rollDeg });
  };

  // Heads are 126 mm wide; the first stands at 200 mm.
  test('heads 127 mm apart stand clear, 120 mm apart stand in each other by 6 mm', () => {
    expect(ofKind(two(0.327), 'overlap')).toEqual([]);
    const [finding] = ofKind(two(0.32), 'overlap');
    expect(finding).toMatchObject({ kind: 'overlap', severity: 'blocks' });
    expect(finding?.figure?.value).toBeCloseTo(6, 6);
    expect(finding?.sentence).toBe('Grille L1 and Grille L2 overlap by 6 mm.');
  });

  test('a rolled head reaches over the edge: half its length against half the zone', () => {
    const [finding] = ofKind(two(-0.3, 90), 'off-zone');
    expect(finding).toBeUndefined();
    const tall = addPlacement(two(-0.3), {
      id: 'c',
      fixtureId: 'long-head-2',
      zoneId: 'grille',
      uM: 0,
      vM: 0,
    });
    const [over] = ofKind(changePlacement(tall, 'c', { rollDeg: 90 }), 'off-zone');
    // 210 mm upright on a zone of 160 mm: 25 mm over.
    expect(over?.figure?.value).toBeCloseTo(25, 6);
  });
});

describe('the demo', () => {
  test('KS-12 has its honest mistakes', () => {
    const { findings, outcomes } = checkBuild(demoBuild('ks-12'));
    const byLaw = findings.filter((f) => f.packId === 'kestrel-sound-by-law');
    expect(new Set(byLaw.map((f) => f.ruleId))).toEqual(
      new Set([
        'rear-stage-1',
        'white-rear',
        'flash-rate',
        'floor-all-round',
        'floor-rear-open',
        'sync-partners',
      ]),
    );
    expect(new Set(findings.map((f) => f.id)).size).toBe(findings.length);
    expect(outcomes.filter((o) => o.verdict === 'holds').every((o) => o.statesChecked > 0)).toBe(true);
  });
  test.each(DEMO_BUILDS.filter((name) => name !== 'ks-12'))('%s has nothing that blocks or warns', (name) => {
    const { findings } = checkBuild(demoBuild(name));
    expect(findings.filter((f) => f.severity === 'blocks' || f.severity === 'warns')).toEqual([]);
  });
  test('the by-law uses every kind', () => {
    expect(new Set(demoPack().rules.map((r) => r.kind)).size).toBe(6);
    for (const rule of demoPack().rules) expect(ruleSentence(rule)).toMatch(/, in stage .*\.$/);
  });

  test('one state alone has its own findings and no others', () => {
    const build = demoBuild('ks-12');
    const hatch = checkBuild(build, { on: ['stage-2'], open: ['hatch'], ambient: 'night' }).findings;
    expect(hatch.map((f) => f.ruleId)).toContain('floor-rear-open');
    const ofPacks = hatch.filter((f) => f.packId !== 'layout' && f.packId !== 'brief');
    expect(ofPacks.every((f) => f.evidence.state?.on[0] === 'stage-2')).toBe(true);
    const off = checkBuild(build, { on: ['off'], open: [], ambient: 'day' }).findings;
    expect(off.every((f) => f.packId === 'layout' && f.evidence.state === null)).toBe(true);
  });

  test('checking changes nothing', () => {
    const build = demoBuild('ks-12');
    const before = structuredClone(build);
    checkBuild(build);
    expect(build).toEqual(before);
  });
});

describe('reading a pack', () => {
  const text = (patch: object) => ({ ...demoPack(), ...patch });
  test.each<[string, unknown, RegExp]>([
    ['not a pack', {}, /^format: this is not a Flarik rule pack/],
    [
      'an unknown kind',
      text({ rules: [{ kind: 'astrology' }] }),
      /^rules\[0\].*: unknown kind of rule 'astrology'; known are colour, flash-rate/,
    ],
    [
      'limits the wrong way round',
      text({ rules: [{ kind: 'flash-rate', ...common, minPerMinute: 9, maxPerMinute: 3 }] }),
      /minPerMinute must not exceed/,
    ],
    [
      'a negative limit',
      text({ rules: [{ kind: 'white-rear', ...common, aboveCd: -1 }] }),
      /^rules\[0\]\.aboveCd: must be more than 0/,
    ],
    [
      'a rule id twice',
      text({
        rules: [
          { kind: 'sync-partners', ...common },
          { kind: 'sync-partners', ...common },
        ],
      }),
      /^rules\[1\]\.id: 'r' is used twice/,
    ],
    ['markup', text({ name: '<i>law</i>' }), /^name: /],
  ])('%s is refused with its place', (_, data, message) => expect(() => readRulePack(data)).toThrow(message));
});

describe('rules of timing', () => {
  const found = (patternId: string, rule: Rule, zone = 'grille'): Finding[] =>
    byPacks(lampOn(zone, 'red', patternId, [rule])).filter((f) => f.kind === rule.kind);

  test('pulses in one flash', () => {
    const rule: RuleOf<'pulses'> = { kind: 'pulses', ...common, most: 3 };
    expect(found('triple', rule)).toEqual([]);
    expect(found('quad', rule)[0]).toMatchObject({
      figure: { value: 4, unit: 'pulses' },
      sentence: 'Quad flash on Grille L: 4 pulses per flash (limit 3).',
    });
    // A sequence is judged by its parts, not by its whole cycle.
    expect(found('triple-then-turns', rule)).toEqual([]);
  });

  test('a sequence is judged by its slowest and its fastest part', () => {
    const rule: RuleOf<'flash-rate'> = { kind: 'flash-rate', ...common, minPerMinute: 60, maxPerMinute: 90 };
    expect(found('single', rule)).toEqual([]);
    expect(found('slow-then-quick', rule)[0]?.figure).toEqual({ value: 100, unit: '/min' });
  });

  test('flashes in one second, and the danger named where the limit is three', () => {
    const rule: RuleOf<'flashes-a-second'> = {
      kind: 'flashes-a-second',
      ...common,
      faces: ['front'],
      aboveCd: 50,
      most: 3,
    };
    expect(found('single', rule)).toEqual([]);
    // Double flash: at 0, 160, 800, 960 ms.
    const [double] = found('double', rule);
    expect(double?.figure).toEqual({ value: 4, unit: '/s' });
    expect(double?.sentence).toMatch(/seizures/);
    expect(found('double', { ...rule, most: 4 })).toEqual([]);
    expect(found('double', rule, 'rear-bumper')).toEqual([]);
  });

  test('too much light toward a face, by night after dimming', () => {
    const rule: RuleOf<'power-ceiling'> = {
      kind: 'power-ceiling',
      ...common,
      faces: ['rear'],
      ambient: 'any',
      maxCdsPerMin: 30_000,
    };
    // 2300 cd · 220 of 800 ms, 60 s: 37 950.
    const build = lampOn('rear-bumper', 'red', 'single', [rule]);
    // A night that differs in nothing is not said again.
    expect(byPacks(build).map((f) => [f.kind, Math.round(f.figure?.value ?? 0)])).toEqual([
      ['power-ceiling', 37_950],
    ]);
    const dimmed = changeStage(build, 2, { nightLevel: 0.5 });
    expect(byPacks(dimmed).map((f) => f.evidence.state?.ambient)).toEqual(['day']);
  });

  test('current at the worst moment', () => {
    const rule: RuleOf<'peak-current'> = { kind: 'peak-current', ...common, maxA: 0.5 };
    expect(found('single', rule)[0]).toMatchObject({ figure: { value: 0.85, unit: 'A' } });
    expect(found('single', { ...rule, maxA: 0.85 })).toEqual([]);
  });

  test('rhythms seen from one direction: drifting ones count each', () => {
    const rule: RuleOf<'rhythms'> = { kind: 'rhythms', ...common, aboveCd: 50, most: 1 };
    const one = lampOn('grille', 'red', 'single', [rule]);
    const two = addPlacement(one, {
      id: 'b',
      fixtureId: 'perimeter-head-2',
      zoneId: 'grille',
      uM: -0.2,
      vM: 0,
    });
    const free = lightCue(groupTarget(null), 1, 'single');
    expect(byPacks(one)).toEqual([]);
    expect(byPacks(setCue(two, 'stage-2', groupTarget(null), 1, free))[0]?.figure).toEqual({
      value: 2,
      unit: 'rhythms',
    });
    const tied = changeModules(two, [{ placementId: 'b', moduleId: 'm1' }], { groupId: 'g', phase: 'B' });
    expect(byPacks(tied)).toEqual([]);
  });

  test('a side whose lamps are all dark together too long', () => {
    const rule: RuleOf<'side-dark'> = { kind: 'side-dark', ...common, maxMs: 600 };
    // In the middle a lamp belongs to both sides: 580 ms dark in 800.
    expect(found('single', rule)).toEqual([]);
    const [left] = found('slow-alternate', rule);
    expect(left?.figure).toEqual({ value: 650, unit: 'ms' });
  });

  test('a head that cannot follow its group is a remark, and a warning where the group must keep step', () => {
    const build = demoBuild('ferry-slip');
    const runners = (b: Build) => checkBuild(b).findings.filter((f) => f.kind === 'free-runner');
    expect(runners(build).map((f) => f.severity)).toEqual(['notes', 'notes']);
    expect(runners(build)[0]?.sentence).toMatch(
      /^Roof is free-running in sync group Old beacons: it has its own flasher without a sync line\. Drift: 40\.0 ms per cycle, all alignments within 16 s\./,
    );
    const strict = changeGroup(build, 'old', { mustKeepStep: true });
    expect(strict).not.toBe(build);
    expect(runners(strict).map((f) => f.severity)).toEqual(['warns', 'warns']);
  });

  test('each says what it asks in a sentence', () => {
    const all: Rule[] = [
      { kind: 'pulses', ...common, most: 3 },
      { kind: 'side-dark', ...common, maxMs: 600 },
      { kind: 'flashes-a-second', ...common, faces: ['rear'], aboveCd: 50, most: 3 },
      { kind: 'power-ceiling', ...common, faces: ['rear'], ambient: 'night', maxCdsPerMin: 9 },
      { kind: 'rhythms', ...common, aboveCd: 50, most: 2 },
      { kind: 'peak-current', ...common, maxA: 40 },
    ];
    expect(all.map(ruleSentence)).toEqual([
      'At most 3 pulses in one flash, in stage 2.',
      'The lamps of one side are never dark together for longer than 600 ms, in stage 2.',
      'At most 3 flashes in any second to the rear, from warning lamps, modules above 50 cd, everything closed, in stage 2.',
      'At most 9 cd·s/min from warning lamps at any bearing to the rear by night, everything closed, in stage 2.',
      'At most 2 different rhythms seen from one direction, from warning lamps, modules above 50 cd, everything closed, in stage 2.',
      'At most 40 A at the peak, in stage 2.',
    ]);
  });
});

test('a lamp is named with its module where that is one of several', () => {
  const car = demoBuild('ks-13');
  const at = new Situation(car, stateWith({ on: ['stage-2'] }), 1.5);
  const bar = car.placements.find(({ id }) => id === 'bar');
  const [first, second] = (bar?.modules ?? []).map(({ id }) => ({ placementId: 'bar', moduleId: id }));
  const grille = { placementId: 'grille', moduleId: 'm1' };
  if (first === undefined || second === undefined) throw new Error('the bar has modules');
  expect(at.lampsText([first])).toMatch(/^module 1 of Roof/);
  expect(at.lampsText([first, second])).toBe('Roof');
  expect(at.lampsText([grille])).toBe('Grille L');
  expect(at.lampsText([first, grille])).toBe('2 lamps');
});
