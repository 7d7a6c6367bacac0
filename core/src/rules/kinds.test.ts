import { describe, expect, test } from 'vitest';
import { addPartner, setColour } from '../arrange/lamps.ts';
import { setCue } from '../design/controlEdits.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build } from '../design/schema.ts';
import { addGroup } from '../design/timingEdits.ts';
import { settle } from '../fixture/catalogue/definition.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { drivenIn } from '../state/driven.ts';
import { FACTORY_FUNCTIONS } from '../words/factoryFunction.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import type { Rule, RuleOf } from './registry.ts';

const car = demoBuild('ks-13');

const told = (build: Build, rule: Rule): Finding[] =>
  checkBuild({ ...build, rulePacks: [packOf(rule)] }).findings.filter((f) => f.packId === 'test');
const said = (build: Build, rule: Rule): string[] => told(build, rule).map((f) => f.sentence);
const verdict = (build: Build, rule: Rule) =>
  checkBuild({ ...build, rulePacks: [packOf(rule)] }).outcomes.find((o) => o.packId === 'test')?.verdict;

/** A red head at the grille that burns as told in stage 2. */
function headAhead(patternId: string): Build {
  const ref = [{ placementId: 'a', moduleId: 'm1' }];
  const placed = put(emptyBuild(), 'a', { zone: 'grille', uM: 0.2 });
  const grouped = changeModules(addGroup(setColour(placed, ref, 1, 'red'), { id: 'g', name: 'G' }), ref, {
    groupId: 'g',
  });
  return setCue(grouped, 'stage-2', groupTarget('g'), 1, lightCue(groupTarget('g'), 1, patternId));
}

describe('number of lamps', () => {
  const rule = (verdict: 'at least' | 'at most', lampCount: number): RuleOf<'count'> => ({
    kind: 'count',
    ...common,
    verdict,
    lampCount,
    level: 'any',
    colours: ['red'],
    faces: ['front', 'rear'],
    aboveCd: 10,
  });

  test('one head ahead is one to the front, and none to the rear', () => {
    const build = headAhead('single');
    expect(said(build, rule('at least', 1))).toEqual(['Warning lamps with red to the rear: 0 (minimum 1).']);
    expect(said(build, rule('at most', 0))).toEqual(['Warning lamps with red to the front: 1 (limit 0).']);
    expect(said(build, rule('at most', 1))).toEqual([]);
  });

  test('of all lamps, and of one level, it says which it counted', () => {
    const build = headAhead('single');
    const front: RuleOf<'count'> = { ...rule('at most', 0), faces: ['front'], lamps: 'all' };
    const two: RuleOf<'count'> = { ...front, verdict: 'at least', lampCount: 3 };
    expect(said(build, front)).toEqual(['Lamps with red to the front: 1 (limit 0).']);
    expect(said(build, { ...two, level: 'lower' })).toEqual([
      'Lower lamps with red to the front: 1 (minimum 3).',
    ]);
    expect(said(build, { ...two, level: 'upper' })).toEqual([
      'Upper lamps with red to the front: 0 (minimum 3).',
    ]);
    expect(said(build, { ...two, level: 'upper', lamps: 'warning' })).toEqual([
      'Upper warning lamps with red to the front: 0 (minimum 3).',
    ]);
  });

  test('a lamp counts once, whatever modules it has, and not in another colour', () => {
    const reds = new Set(
      drivenIn(car, { on: ['stage-2'], ambient: 'day' })
        .filter((d) => d.colour === 'red')
        .map((d) => d.placementId),
    ).size;
    const found = told(car, rule('at least', 200)).map((f) => f.figure?.value ?? NaN);
    for (const n of found) expect(n).toBeLessThanOrEqual(reds);
    expect(said(headAhead('single'), { ...rule('at most', 0), colours: ['blue'] })).toEqual([]);
  });
});

describe('height of lamps', () => {
  const rule = (
    leastM: number,
    mostM: number,
    faces: ('front' | 'rear')[] = ['front'],
  ): RuleOf<'height'> => ({
    kind: 'height',
    ...common,
    colours: ['red'],
    faces,
    leastM,
    mostM,
  });
  const build = headAhead('single');
  const middle = told(build, rule(3, 4))[0]?.figure?.value ?? NaN;

  test('by the middle of the lamp, both ends allowed', () => {
    expect(middle).toBeGreaterThan(400);
    expect(middle).toBeLessThan(1100);
    expect(said(build, rule(middle / 1000, middle / 1000))).toEqual([]);
    expect(said(build, rule(middle / 1000 + 0.01, 4))).toEqual([
      expect.stringMatching(/^Grille L: optical centre 800 mm above ground \(permitted 810 to 4,000 mm\)\./),
    ]);
    expect(said(build, rule(0, middle / 1000 - 0.01))).toHaveLength(1);
  });

  test('only of the colours and to the sides named', () => {
    expect(said(build, rule(3, 4, ['rear']))).toEqual([]);
    expect(said(build, { ...rule(3, 4), colours: ['blue'] })).toEqual([]);
  });
});

test('distance from the maker’s lamps: as far as asked, of those asked', () => {
  const rule = (leastM: number): RuleOf<'spacing-to-signal'> => ({
    kind: 'spacing-to-signal',
    ...common,
    signals: ['turn'],
    leastM,
  });
  const [near] = told(car, rule(2));
  const m = (near?.figure?.value ?? NaN) / 1000;
  expect(near?.sentence).toMatch(
    /^Grille L \(and its counterpart\): 310 mm from the left front turn signal \(minimum 2,000 mm\)\./,
  );
  expect(m).toBeGreaterThan(0.1);
  expect(said(car, rule(0.1))).toEqual([]);
});

test('maker’s lamps left alone: what stands at one is told, of those asked alone', () => {
  const rule: RuleOf<'signal-untouched'> = {
    kind: 'signal-untouched',
    ...common,
    signals: [...FACTORY_FUNCTIONS],
  };
  const { zones } = lookupOf(emptyBuild()).vehicle;
  const zone = zones.find((z) => z.tiesIn === 'reverse')?.id ?? '';
  const fixture = lookupOf(car).fixtures.find((f) => f.kind === 'factory' && f.ties.includes('reverse'))?.id;
  const tied = put(emptyBuild(), 'a', { zone, fixture: fixture ?? '' });
  expect(said(tied, rule)).toEqual([
    expect.stringMatching(
      /^Reversing lamp L is connected to the left reversing lamp, which must stay untouched\./,
    ),
  ]);
  expect(said(tied, { ...rule, signals: ['turn'] })).toEqual([]);
  expect(said(headAhead('single'), rule)).toEqual([]);
});

test('left and right alike: a lamp alone is told, a pair is not', () => {
  const rule: RuleOf<'symmetry'> = { kind: 'symmetry', ...common, withinM: 0.02 };
  const alone = put(emptyBuild(), 'a', { zone: 'grille', uM: 0.3 });
  expect(said(alone, rule)).toEqual([
    expect.stringMatching(/^Grille L has no counterpart on the other side\./),
  ]);
  expect(said(addPartner(alone, 'a', 'b'), rule)).toEqual([]);
});

describe('approvals', () => {
  const rule: RuleOf<'marking'> = { kind: 'marking', ...common, approvals: ['Class X', 'Class Y'] };
  const own = (approvals: string[]): Build => {
    const { ...head } = lookupOf(car).fixture('perimeter-head-2');
    const fixture = { ...settle(head), id: 'own-head', approvals };
    return put({ ...emptyBuild(), fixtures: [fixture] }, 'a', { zone: 'grille', fixture: 'own-head' });
  };

  test('unknown is not known, another is wrong, one of several will do', () => {
    expect(told(own([]), rule).map((f) => f.outcome)).toEqual(['cannot tell']);
    expect(verdict(own([]), rule)).toBe('cannot tell');
    expect(said(own(['Class Z']), rule)).toEqual([
      expect.stringMatching(
        /^Perimeter head, two colours: approved as Class Z\. Required: Class X, Class Y\./,
      ),
    ]);
    expect(verdict(own(['Class Z', 'Class Y']), rule)).toBe('holds');
  });
  test('many that nobody has entered are one finding, which names some of them', () => {
    const heads = ['one', 'two', 'three', 'four'].map((id) => ({
      ...settle(lookupOf(car).fixture('perimeter-head-2')),
      id,
      name: `Head ${id}`,
      approvals: [],
    }));
    const build = heads.reduce<Build>(
      (b, { id }, i) => put(b, id, { zone: 'grille', fixture: id, uM: 0.1 + 0.2 * i }),
      { ...emptyBuild(), fixtures: heads },
    );
    expect(said(build, rule)).toEqual([
      'No approval entered for Head one, Head two, Head three and 1 more. Required: Class X, Class Y.',
    ]);
  });
});

test('patterns allowed: another is told with its name', () => {
  const rule = (patterns: string[]): RuleOf<'permitted-patterns'> => ({
    kind: 'permitted-patterns',
    ...common,
    patterns,
  });
  expect(said(headAhead('double'), rule(['single']))).toEqual([
    expect.stringMatching(/^Grille L: pattern Double flash is not permitted\./),
  ]);
  expect(said(headAhead('double'), rule(['single', 'double']))).toEqual([]);
  expect(said(headAhead('steady'), rule(['single']))).toEqual([]);
});

test('steady light: flashing is none, steady is enough as far as it reaches', () => {
  const rule = (minCd: number): RuleOf<'steady-required'> => ({
    kind: 'steady-required',
    ...common,
    colour: 'red',
    face: 'front',
    minCd,
    withinDeg: 5,
  });
  expect(said(headAhead('single'), rule(1))).toEqual(['Steady red to the front: 0 cd (minimum 1 cd).']);
  expect(said(headAhead('steady'), rule(1))).toEqual([]);
  const least = told(headAhead('steady'), rule(1e9))[0]?.figure?.value ?? NaN;
  expect(least).toBeGreaterThan(1);
  expect(said(headAhead('steady'), rule(least * 0.999))).toEqual([]);
  expect(said(headAhead('steady'), rule(least * 1.001))).toHaveLength(1);
});

test('steady light is looked for as far to either side of straight as said, of one colour', () => {
  const rule = (withinDeg: number, colour: 'red' | 'blue' = 'red'): RuleOf<'steady-required'> => ({
    kind: 'steady-required',
    ...common,
    colour,
    face: 'front',
    minCd: 1e9,
    withinDeg,
  });
  const ahead = headAhead('steady');
  const least = (withinDeg: number): number => told(ahead, rule(withinDeg))[0]?.figure?.value ?? NaN;
  // Half of what it sends straight on is left 22° beside it.
  for (const deg of [1, 10, 22]) expect(least(deg) / least(0)).toBeCloseTo(2 ** -((deg / 22) ** 2), 9);
  expect(said(ahead, rule(5, 'blue'))).toEqual([
    'Steady blue to the front: 0 cd (minimum 1,000,000,000 cd).',
  ]);
});

test('light lost in covers: what lens and colour pass together', () => {
  const rule = (leastPercent: number): RuleOf<'transmission'> => ({
    kind: 'transmission',
    ...common,
    leastPercent,
  });
  const smoked = put(headAhead('single'), 'b', {
    zone: 'rear-bumper',
    lensTransmission: 0.8,
    lensByColour: { red: 0.5 },
  });
  const [least] = told(smoked, rule(100));
  expect(least?.figure?.value).toBeCloseTo(40, 6);
  expect(said(smoked, rule(40))).toEqual([]);
  expect(said(smoked, rule(41))).toEqual([
    expect.stringMatching(
      /^Rear bumper: 40 % of its red light passes glass, cover and lens \(minimum 41 %\)\./,
    ),
  ]);
});

test('rules about the document are silent for another service', () => {
  const rule: RuleOf<'symmetry'> = { kind: 'symmetry', ...common, withinM: 0.02, services: ['fire'] };
  expect(verdict(put(emptyBuild(), 'a', { zone: 'grille', uM: 0.3 }), rule)).toBe('silent');
});
