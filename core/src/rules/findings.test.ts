import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { describe, expect, test } from 'vitest';
import { addRequirement } from '../design/briefEdits.ts';
import { setColour } from '../arrange/lamps.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build } from '../design/schema.ts';
import { addGroup } from '../design/timingEdits.ts';
import { describeRequirement, type Requirement } from './brief/requirements.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import { ruleSentence, type Rule } from './registry.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { addOwn } from '../arrange/vehicleEdits.ts';
import { emptyBuild, ownZone, put, type At } from '../../test/reference/places.ts';
import { common, packOf } from '../../test/reference/rules.ts';

/* What each rule and each wish says, word for word, with its figure, its limit and what it points at. */

/** A lamp that shows one colour by a pattern in stage 2, in a group of its own. */
interface PeakTowardFace extends At {
  readonly colour?: 'red' | 'blue' | 'white' | 'amber';
  readonly pattern?: string;
}

function build(lamps: Readonly<Record<string, PeakTowardFace>>, rules: readonly Rule[] = []): Build {
  const start: Build = { ...emptyBuild(), rulePacks: [packOf(...rules)] };
  return Object.entries(lamps).reduce((b, [id, { colour = 'red', pattern = 'single', ...at }]) => {
    const ref = [{ placementId: id, moduleId: 'm1' }];
    const group = `g-${id}`;
    const coloured = setColour(put(b, id, at), ref, 1, colour);
    const grouped = changeModules(addGroup(coloured, { id: group, name: group }), ref, { groupId: group });
    return setCue(grouped, 'stage-2', groupTarget(group), 1, lightCue(groupTarget(group), 1, pattern));
  }, start);
}

const found = (b: Build, from: string): Finding[] => checkBuild(b).findings.filter((f) => f.packId === from);

/** Figure and limits as text, the rest as it stands; the state is said apart from the rest. */
const said = (f: Finding) => ({
  id: f.id,
  outcome: f.outcome,
  home: f.home,
  severity: f.severity,
  sentence: f.sentence,
  figure: f.figure === null ? null : `${Number(f.figure.value.toPrecision(6))} ${f.figure.unit}`,
  limits: f.limits.map((l) => `${l.sense} ${l.value} ${l.unit}`),
  channels: f.evidence.channels.map((c) => `${c.placementId}/${c.moduleId}/${c.slot}`),
  sectors: f.evidence.sectors.map((s) => `${s.fromDeg} to ${s.toDeg}`),
  state:
    f.evidence.state === null
      ? null
      : `${f.evidence.state.on.join()} ${f.evidence.state.open.join('+')} ${f.evidence.state.ambient}`,
});

const BUMPER = { zone: 'rear-bumper', uM: 0.3 };
const GRILLE = { zone: 'grille' };
const byRule = (rule: Rule, lamps: Readonly<Record<string, PeakTowardFace>>) =>
  found(build(lamps, [rule]), 'test').map(said);
/** What all findings of a blocking rule about lamp a in stage 2 by day have in common. */
const base = { outcome: 'fails', severity: 'blocks', channels: ['a/m1/1'], state: 'stage-2  day' };
const REAR = { sectors: ['135 to 225'] };

describe('colours', () => {
  const only: Rule = {
    ...common,
    kind: 'colour',
    verdict: 'only',
    colours: ['red', 'amber'],
    faces: ['rear'],
    light: 'any',
    aboveCd: 10,
    of: 'sum',
    lamps: 'warning',
  };
  const never: Rule = { ...only, verdict: 'never', colours: ['blue', 'white'], light: 'steady', of: 'lamp' };

  test('only some', () => {
    expect(ruleSentence(only)).toBe(
      'Only red, amber light above 10 cd (combined) to the rear from warning lamps, any door position, in stage 2.',
    );
    expect(byRule(only, { a: { ...BUMPER, colour: 'blue' } })).toEqual([
      {
        ...base,
        ...REAR,
        id: 'test|r|stage-2||day|rear|blue',
        home: 'layout',
        sentence:
          'Blue to the rear: 1,270 cd combined at 180° (limit 10 cd), from Rear bumper R. Permitted: red, amber.',
        figure: '1265 cd',
        limits: ['at most 10 cd'],
      },
    ]);
  });

  test('never some, of steady light and of one lamp', () => {
    expect(ruleSentence({ ...never, lamps: 'all' })).toBe(
      'No blue, white steady light above 10 cd (single lamp) to the rear from lamps of any kind, any door position, in stage 2.',
    );
    expect(
      byRule(never, { a: { ...BUMPER, colour: 'blue', pattern: 'steady' } }).map((f) => f.sentence),
    ).toEqual([
      'Steady blue to the rear: 1,270 cd single lamp at 180° (limit 10 cd), from Rear bumper R. Not permitted: blue, white.',
    ]);
  });

  test('of one lamp: those above the limit are named, the others are not', () => {
    const lamps = { a: { ...BUMPER, colour: 'blue' }, b: { ...GRILLE, colour: 'blue' } } as const;
    const [found, ...more] = byRule({ ...never, light: 'any' }, lamps);
    expect(more).toEqual([]);
    expect(found?.channels).toEqual(['a/m1/1']);
    expect(found?.sentence).toContain('from Rear bumper R');
  });

  test('a light of just the limit is within it', () => {
    expect(byRule({ ...only, aboveCd: 1265 }, { a: { ...BUMPER, colour: 'blue' } })).toEqual([]);
    expect(byRule({ ...only, aboveCd: 1264.9 }, { a: { ...BUMPER, colour: 'blue' } })).toHaveLength(1);
  });
});

describe('white to the rear', () => {
  const rule: Rule = { ...common, kind: 'white-rear', aboveCd: 40, of: 'sum', lamps: 'warning' };
  test('from a warning lamp', () => {
    expect(byRule(rule, { a: { ...BUMPER, colour: 'white' } })).toEqual([
      {
        ...base,
        ...REAR,
        id: 'test|r|stage-2||day|white',
        home: 'layout',
        sentence:
          'White to the rear from Rear bumper R: 4,370 cd combined at 180° (limit 40 cd). Only steady reversing lamps are exempt.',
        figure: '4370 cd',
        limits: ['at most 40 cd'],
      },
    ]);
    expect(byRule({ ...rule, aboveCd: 4370 }, { a: { ...BUMPER, colour: 'white' } })).toEqual([]);
  });
  test('from a reversing lamp that flashes', () => {
    const reversing = { zone: 'tie-reverse-left', fixture: 'factory-reverse', colour: 'white' as const };
    const [flashing] = byRule(rule, { a: reversing });
    expect(flashing?.sentence).toMatch(
      /^Flashing white to the rear from the reversing lamps: 320 cd combined at 180° \(limit 40 cd\)\. Reversing lamps must be steady\./,
    );
    expect(flashing?.id).toBe('test|r|stage-2||day|reversing');
    expect(byRule(rule, { a: { ...reversing, pattern: 'steady' } })).toEqual([]);
    const [beside] = byRule(rule, { a: reversing, b: { ...BUMPER, colour: 'white' } });
    expect(beside?.id).toBe('test|r|stage-2||day|white');
    expect(beside?.sentence).toMatch(
      /^White to the rear from 2 lamps: 4,690 cd combined at 180° \(limit 40 cd\)\. Only steady reversing lamps are exempt\./,
    );
  });
});

describe('rates, pulses and rhythms', () => {
  const rate: Rule = { ...common, kind: 'flash-rate', minPerMinute: 60, maxPerMinute: 120 };
  test('too slow', () => {
    expect(ruleSentence(rate)).toBe('Between 60 and 120 flashes a minute, in stage 2.');
    expect(byRule(rate, { a: { ...GRILLE, pattern: 'slow-alternate' } })).toEqual([
      {
        ...base,
        id: 'test|r|stage-2||day|slow-alternate|g-a',
        home: 'timing',
        sentence: 'Slow alternate on Grille: 48 flashes/min (permitted 60 to 120).',
        figure: '48 /min',
        limits: ['at least 60 /min', 'at most 120 /min'],
        sectors: [],
      },
    ]);
  });
  const pulses: Rule = { ...common, kind: 'pulses', most: 1 };
  test('too many pulses in a flash', () => {
    expect(byRule(pulses, { a: { ...GRILLE, pattern: 'double' } })).toEqual([
      {
        ...base,
        id: 'test|r|stage-2||day|double|g-a',
        home: 'timing',
        sentence: 'Double flash on Grille: 2 pulses per flash (limit 1).',
        figure: '2 pulses',
        limits: ['at most 1 pulses'],
        sectors: [],
      },
    ]);
    expect(ruleSentence(pulses)).toBe('At most 1 pulse in one flash, in stage 2.');
    expect(ruleSentence({ ...pulses, most: 2 })).toBe('At most 2 pulses in one flash, in stage 2.');
    expect(byRule({ ...pulses, most: 2 }, { a: { ...GRILLE, pattern: 'double' } })).toEqual([]);
  });
  const second: Rule = {
    ...common,
    kind: 'flashes-a-second',
    faces: ['front'],
    aboveCd: 50,
    most: 1,
    lamps: 'warning',
  };
  test('too many flashes in a second', () => {
    expect(byRule(second, { a: GRILLE })).toEqual([
      {
        ...base,
        id: 'test|r|stage-2||day|front',
        home: 'timing',
        sentence:
          'Flashes in one second at 315°: 2 (limit 1). Affected: 315°–45°. Flashing at 3 to 30 per second can cause seizures.',
        figure: '2 /s',
        limits: ['at most 1 /s'],
        sectors: ['315 to 45'],
      },
    ]);
    expect(byRule({ ...second, most: 2 }, { a: GRILLE })).toEqual([]);
  });
  test('lamps in step are two channels of one count, those turned away are none', () => {
    const both = byRule(second, { a: { ...GRILLE, uM: -0.2 }, b: { ...GRILLE, uM: 0.2 }, c: BUMPER });
    expect(both[0]?.channels.toSorted()).toEqual(['a/m1/1', 'b/m1/1']);
  });
});

describe('floors, ceilings and gaps', () => {
  const floor: Rule = {
    ...common,
    kind: 'power-floor',
    faces: ['rear'],
    level: 'lower',
    ambient: 'any',
    minCdsPerMin: 20_000,
    poses: ['shut'],
    lamps: 'warning',
  };
  const turned = { ...BUMPER, panDeg: 10 };
  test('too little light of one level: only what shines there is pointed at', () => {
    expect(ruleSentence(floor)).toBe(
      'At least 20000 cd·s/min from lower warning lamps at every bearing to the rear, with everything closed, in stage 2.',
    );
    expect(byRule(floor, { a: turned, b: GRILLE })).toEqual([
      {
        ...base,
        id: 'test|r|stage-2||day|rear',
        home: 'visibility',
        sentence:
          'Optical power to the rear, lower lamps: 498 cd·s/min at 135° (minimum 20,000 cd·s/min). Gap: 135°–168°, 212°–225°.',
        figure: '498.625 cd·s/min',
        limits: ['at least 20000 cd·s/min'],
        sectors: ['135 to 168', '212 to 225'],
      },
    ]);
  });
  test('of all levels, by night, with something open: nothing shines there', () => {
    const any: Rule = { ...floor, level: 'any', ambient: 'night', poses: ['shut', 'hatch-open'] };
    expect(ruleSentence(any)).toBe(
      'At least 20000 cd·s/min from warning lamps at every bearing to the rear by night, with everything closed, the hatch open, in stage 2.',
    );
    expect(byRule(any, { b: GRILLE })).toEqual([
      {
        ...base,
        id: 'test|r|stage-2||night|rear',
        home: 'visibility',
        sentence: 'Optical power to the rear: 0 cd·s/min at 135° (minimum 20,000 cd·s/min). Gap: 135°–225°.',
        figure: '0 cd·s/min',
        limits: ['at least 20000 cd·s/min'],
        channels: [],
        sectors: ['135 to 225'],
        state: 'stage-2  night',
      },
    ]);
  });
  test('just so much is enough', () => {
    const [finding] = byRule(floor, { a: turned });
    const minCdsPerMin = Number(finding?.figure?.split(' ')[0]);
    expect(byRule({ ...floor, minCdsPerMin: minCdsPerMin * 0.9999 }, { a: turned })).toEqual([]);
    expect(byRule({ ...floor, minCdsPerMin: minCdsPerMin * 1.0001 }, { a: turned })).toHaveLength(1);
  });
  const ceiling: Rule = {
    ...common,
    kind: 'power-ceiling',
    faces: ['rear'],
    ambient: 'night',
    maxCdsPerMin: 100,
    lamps: 'warning',
  };
  test('too much light', () => {
    expect(byRule(ceiling, { a: BUMPER })).toEqual([
      {
        ...base,
        ...REAR,
        id: 'test|r|stage-2||night|rear',
        home: 'visibility',
        sentence:
          'Optical power to the rear: 38,000 cd·s/min at 180° (limit 100 cd·s/min). Affected: 135°–225°.',
        figure: '37950 cd·s/min',
        limits: ['at most 100 cd·s/min'],
        state: 'stage-2  night',
      },
    ]);
    expect(byRule({ ...ceiling, maxCdsPerMin: 37_950 }, { a: BUMPER })).toEqual([]);
  });
  const gap: Rule = {
    ...common,
    kind: 'dark-gap',
    faces: ['rear'],
    thresholdCd: 50,
    maxMs: 200,
    lamps: 'warning',
  };
  test('dark for too long', () => {
    expect(byRule(gap, { a: BUMPER })).toEqual([
      {
        ...base,
        ...REAR,
        id: 'test|r|stage-2||day|rear',
        home: 'timing',
        sentence:
          'Dark interval to the rear: 580 ms at 135° (limit 200 ms below 50 cd). Affected: 135°–225°.',
        figure: '580 ms',
        limits: ['at most 200 ms'],
      },
    ]);
    expect(byRule({ ...gap, maxMs: 580 }, { a: BUMPER })).toEqual([]);
  });
  const side: Rule = { ...common, kind: 'side-dark', maxMs: 100 };
  test('a side that is dark', () => {
    expect(byRule(side, { a: { zone: 'sill-left', pattern: 'slow-alternate' } })).toEqual([
      {
        ...base,
        id: 'test|r|stage-2||day|left',
        home: 'timing',
        sentence: 'Left side lamps: dark together for 650 ms (limit 100 ms).',
        figure: '650 ms',
        limits: ['at most 100 ms'],
        sectors: [],
      },
    ]);
    expect(
      byRule(side, { a: { zone: 'sill-right', pattern: 'slow-alternate' } }).map(({ id }) => id),
    ).toEqual(['test|r|stage-2||day|right']);
    // With one that burns beside it the side is never dark; nor is a side without lamps.
    const both = { a: { zone: 'sill-left', pattern: 'slow-alternate' } };
    expect(byRule(side, { ...both, b: { zone: 'wing-left', pattern: 'steady' } })).toEqual([]);
    expect(byRule({ ...side, maxMs: 650 }, both)).toEqual([]);
  });
});

test('current at the worst moment', () => {
  const rule: Rule = { ...common, kind: 'peak-current', maxA: 0.5 };
  const two = { a: BUMPER, b: GRILLE };
  expect(byRule(rule, two)).toEqual([
    {
      ...base,
      id: 'test|r|stage-2||day|current',
      home: 'timing',
      sentence: 'Peak current: 1.7 A (limit 0.5 A).',
      figure: '1.7 A',
      limits: ['at most 0.5 A'],
      channels: ['a/m1/1', 'b/m1/1'],
      sectors: [],
    },
  ]);
  expect(byRule({ ...rule, maxA: 1.7 }, two)).toEqual([]);
});

describe('where lamps stand', () => {
  const always = { outcome: 'fails', home: 'layout', sectors: [], state: null };
  test('drilled in a panel of one skin', () => {
    const drilled = found(build({ a: { zone: 'wing-left', fixing: 'drill' } }), 'layout').map(said);
    expect(drilled[0]).toEqual({
      ...always,
      id: 'layout|hole|always|a',
      severity: 'blocks',
      sentence: 'Front wing L: 3 holes in Front wing left, a single-skin panel. Use bracket or adhesive.',
      figure: '3 holes',
      limits: ['at most 0 holes'],
      channels: ['a/m1/1'],
    });
  });
  test('drilled where nothing else holds', () => {
    const own = addOwn(emptyBuild(), 'zones', [
      ownZone({ id: 'own-thin', name: 'Thin panel', fixings: ['drill'], singleWall: true }),
    ]);
    const sentences = found(put(own, 'a', { zone: 'own-thin' }), 'layout').map((f) => f.sentence);
    expect(sentences.find((text) => text.includes('holes'))).toBe(
      'Thin panel L: 3 holes in Thin panel, a single-skin panel. Choose another zone.',
    );
  });
  test('in each other: long bars though their middles are far apart', () => {
    const heads = found(build({ a: GRILLE, b: { ...GRILLE, uM: 0.02 } }), 'layout').map(said);
    expect(heads[0]).toEqual({
      ...always,
      id: 'layout|overlap|always|a|b',
      severity: 'blocks',
      sentence: 'Grille 1 and Grille 2 overlap by 24 mm.',
      figure: '24 mm',
      limits: ['at most 1 mm'],
      channels: ['a/m1/1', 'b/m1/1'],
    });
    const bars = ['a', 'b'].reduce(
      (b, id, i) => put(b, id, { zone: 'roof', fixture: 'roof-bar-1200', uM: i * 1.15 }),
      emptyBuild(),
    );
    expect(found(bars, 'layout').map((f) => f.kind)).toContain('overlap');
  });
});

describe('wishes', () => {
  const w = { id: 'w', severity: 'blocks' as const };
  const lamp = build({ a: BUMPER });
  const wishes = (wish: Requirement, of = lamp) => found(addRequirement(of, wish), 'brief').map(said);
  const always = { outcome: 'fails', home: 'brief', severity: 'blocks', sectors: [], state: null };

  test('a head to be kept', () => {
    const here: Requirement = { kind: 'keep-head', ...w, placementId: 'a', where: 'where it is' };
    const gone: Requirement = { kind: 'keep-head', ...w, placementId: 'gone', where: 'anywhere' };
    expect([here, gone].map((wish) => describeRequirement(lamp, wish))).toEqual([
      'Keep "Rear bumper R" where it is',
      'Keep "deleted lamp", there or elsewhere',
    ]);
    expect(wishes(here)).toEqual([
      {
        ...always,
        id: 'brief|w|always|a',
        sentence: 'Lamp to be kept, Rear bumper R: status is new, required: kept.',
        figure: null,
        limits: [],
        channels: ['a/m1/1'],
      },
    ]);
    expect(wishes(gone)).toEqual([
      {
        ...always,
        id: 'brief|w|always|gone',
        sentence: 'Lamp to be kept, deleted lamp: no longer exists.',
        figure: null,
        limits: [],
        channels: [],
      },
    ]);
  });

  test('a factory lamp to be left alone: what stands at it, not what stands beside, above or before it', () => {
    const { vehicle } = lookupOf(lamp);
    const left = vehicle.factoryLamps.find((l) => l.id === 'reverse-left');
    const corners = left?.outline ?? [];
    const middle = [0, 1, 2].map(
      (axis) => corners.reduce((sum, corner) => sum + (corner[axis] ?? 0), 0) / corners.length,
    );
    const leave: Requirement = { kind: 'leave-factory-lamp', ...w, lampId: 'reverse-left' };
    const at = (back: number, side: number, up: number) => {
      const [x = 0, y = 0, z = 0] = middle;
      const own = ownZone({
        id: 'own-tail',
        name: 'Tail',
        face: 'rear',
        centre: [x - back, y + side, z + up],
      });
      return wishes(leave, put(addOwn(emptyBuild(), 'zones', [own]), 'a', { zone: 'own-tail' }));
    };
    expect(at(0, 0, 0)).toEqual([
      {
        ...always,
        id: 'brief|w|always|a',
        sentence: 'Tail L is at the left reversing lamp, which must stay untouched.',
        figure: null,
        limits: [],
        channels: ['a/m1/1'],
      },
    ]);
    expect(at(0.5, 0, 0)).toEqual([]);
    expect(at(-0.5, 0, 0)).toEqual([]);
    expect(at(0, 0.4, 0)).toEqual([]);
    expect(at(0, 0, 0.3)).toEqual([]);
  });

  test('heights, holes, outputs, money and what is seen when off', () => {
    const said: readonly [Requirement, string, string, string][] = [
      [
        { kind: 'lowest-lamp', ...w, heightM: 0.9, faces: ['rear'] },
        'Rear bumper R: lower edge at 532 mm (minimum 900 mm).',
        '532 mm',
        'at least 900 mm',
      ],
      [
        { kind: 'no-holes', ...w, zoneIds: [] },
        'Rear bumper R: 3 holes in Rear bumper (mounting: drill).',
        '3 holes',
        'at most 0 holes',
      ],
      [
        { kind: 'spare-outputs', ...w, outputs: 2, spare: 2 },
        '1 of 2 outputs used, 1 spare (minimum 2).',
        '1 outputs',
        'at least 2 outputs',
      ],
      [
        { kind: 'spend-at-most', ...w, minor: 100 },
        'Fixture cost: 98 EUR (limit 1 EUR).',
        '98 money',
        'at most 1 money',
      ],
      [
        { kind: 'unseen-when-off', ...w, atMost: 0 },
        'Lamps visible when off: Rear bumper R.',
        '1 lamps',
        'at most 0 lamps',
      ],
    ];
    for (const [wish, sentence, figure, limit] of said)
      expect(wishes(wish)[0]).toMatchObject({
        sentence,
        figure,
        limits: [limit],
        home: 'brief',
        state: null,
      });
  });
});
