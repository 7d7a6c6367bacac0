import { fixedSet } from '../design/lampSets.ts';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { addFunction, withControls } from '../design/controlEdits.ts';
import { lightCue, newFunction } from '../design/functions.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from './check.ts';
import { workLight } from './kinds/workLight.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { areaLight, groundGrid, workAreasOf } from '../sight/ground.ts';
import { lightsIn, sourcesOf } from '../sight/source.ts';
import { outlineOf } from '../sight/stations.ts';
import { stateWith } from '../state/state.ts';
import { toTheEnd } from '../words/inSteps.ts';
import { LayoutSubject } from './layout/subject.ts';
import { ruleSentence, type Rule, type RuleOf } from './registry.ts';

const car = demoBuild('ks-13');
const pumper = demoBuild('tunnel-pumper-3');
const said = (build: Build, rule: Rule): string[] =>
  checkBuild({ ...build, rulePacks: [packOf(rule)] })
    .findings.filter((f) => f.packId === 'test')
    .map((f) => f.sentence);

describe('seen in time to stop', () => {
  const rule = (patch: Partial<RuleOf<'seen-in-time'>>): RuleOf<'seen-in-time'> => ({
    ...common,
    kind: 'seen-in-time',
    fromDeg: 180,
    speedKmh: 110,
    eyeM: 1.08,
    gradePercent: 0,
    weather: 'fog',
    around: 'day',
    shown: 'any',
    noticing: 1,
    eyes: 'normal',
    spareS: 0,
    ...patch,
  });
  test('fog at 110 km/h is too late, at 60 in time', () => {
    expect(said(car, rule({}))).toEqual([
      expect.stringMatching(
        /^to a driver the vehicle is seen from 174 m in Stage 2.*, and 214 m are needed to stop: 1\.3 s too late; at least 0 s are wanted\.$/i,
      ),
      // Much later with the hatch up, which the first does not say.
      expect.stringMatching(
        /^to a driver the vehicle is seen from 134 m in Stage 2, hatch open, .* 2\.6 s too late/i,
      ),
    ]);
    expect(said(car, rule({ speedKmh: 60 }))).toEqual([]);
    expect(said(car, rule({ speedKmh: 60, spareS: 20 }))).not.toEqual([]);
  });
  test('every observer is asked, and a colour alone', () => {
    const all = rule({ speedKmh: 90, fromDeg: 0, shown: 'red', eyes: 'every' });
    const told = said(car, all).join(' ');
    expect(told).toMatch(/sees red poorly/i);
    expect(said(car, rule({ speedKmh: 60, shown: 'green' }))[0]).toMatch(/green light is not seen 20 m off/);
  });
  test('on a grade where no brake holds nothing is in time', () => {
    expect(
      said(car, rule({ gradePercent: -15, weather: 'rain', around: 'night', speedKmh: 250 })),
    ).not.toEqual([]);
  });
  test('its sentence says all of it', () => {
    expect(ruleSentence(rule({}))).toBe(
      'Who comes at 110 km/h from 180°, eye at 1.08 m, grade 0 %, in fog by day, sees any light at 1 times what is just visible, with normal eyes, at least 0 s before it must brake, in stage 2.',
    );
  });
});

describe('glare, fog and eyes', () => {
  const lane = (maxPercent: number): RuleOf<'glare'> => ({
    ...common,
    kind: 'glare',
    lane: 'following',
    around: 'night',
    maxPercent,
  });
  test('glare: more than allowed is told with its distance and lamps', () => {
    expect(said(car, lane(100))[0]).toMatch(
      /^the following driver needs \d+ % more contrast \d+ m off in Stage 2.*at night/i,
    );
    expect(said(car, lane(1e6))).toEqual([]);
  });
  test('fog: what is thrown back, against its own light', () => {
    const rule = (maxPercent: number): RuleOf<'veil'> => ({
      ...common,
      kind: 'veil',
      opticalRangeM: 80,
      around: 'night',
      maxPercent,
    });
    expect(said(car, rule(1))[0]).toMatch(
      /^fog throws \d+ % of its own light back to the driver in Stage 2/i,
    );
    expect(said(car, rule(1e7))).toEqual([]);
  });
  test('eyes of the crew: lux at the eye', () => {
    const rule = (maxLx: number): RuleOf<'eye'> => ({
      ...common,
      kind: 'eye',
      station: 'rear-loading',
      ambient: 'night',
      maxLx,
    });
    expect(said(car, rule(0.1))[0]).toMatch(
      /^\d+ lx reach the eye of the one who stands at the rear, facing it in Stage 2/i,
    );
    expect(said(car, rule(1e6))).toEqual([]);
    const [found] = checkBuild({ ...car, rulePacks: [packOf(rule(0.1))] }).findings.filter(
      ({ packId }) => packId === 'test',
    );
    expect(found?.figure?.unit).toBe('lx');
    expect(found?.sentence).toContain(`${Math.ceil(found?.figure?.value ?? NaN)} lx reach`);
    expect(found?.limits).toEqual([{ value: 0.1, unit: 'lx', sense: 'at most' }]);
    expect(found?.evidence.channels.length).toBeGreaterThan(0);
    const just = found?.figure?.value ?? NaN;
    expect(said(car, rule(just * 1.01))).toEqual([]);
    expect(said(car, rule(just * 0.99))).not.toEqual([]);
  });
  test('where nobody sits or stands no eye is asked', () => {
    const inside: Rule = { ...common, kind: 'eye', station: 'inside', ambient: 'night', maxLx: 0.001 };
    expect(said(car, inside)).toEqual([]);
    expect(said(car, { ...inside, station: 'pump-panel-left' })).toEqual([]);
    expect(said(pumper, { ...inside, station: 'pump-panel-left' })).not.toEqual([]);
  });
});

describe('light to work by', () => {
  const rule = (patch: Partial<RuleOf<'work-light'>>): RuleOf<'work-light'> => ({
    ...common,
    kind: 'work-light',
    area: 'left',
    meanLx: 10,
    leastLx: 1,
    ...patch,
  });
  test('the pumper lights its sides, and not its rear', () => {
    expect(said(pumper, rule({}))).toEqual([]);
    expect(said(pumper, rule({ area: 'rear' }))).toEqual([
      expect.stringMatching(
        /^the ground at the rear gets a mean of 0\.\d lx, .*Scene light.* on; at least 10 lx are wanted\.$/i,
      ),
      expect.stringMatching(/^the ground at the rear gets a least of 0\.0 lx/i),
    ]);
    expect(said(pumper, rule({ meanLx: 5000 }))).toHaveLength(1);
  });
  test('all of the ground is asked that people work on, 3 m wide', () => {
    const scene = pumper.controls.functions.filter(({ kind }) => kind === 'light').map(({ id }) => id);
    const outline = outlineOf(lookupOf(pumper).vehicle);
    const lamps = sourcesOf(lightsIn(pumper, stateWith({ on: scene })), 'steady');
    const wide = toTheEnd(groundGrid(lamps, outline, { stepM: 0.5, beyondM: 6 }));
    const left = workAreasOf(outline).find(({ id }) => id === 'left');
    if (left === undefined) throw new Error('no ground at the left');
    expect(left.leftY - left.rightY).toBeCloseTo(3, 6);
    const [mean] = workLight.faults(new LayoutSubject(pumper), rule({ meanLx: 5000 }));
    expect(mean?.figure?.value).toBeCloseTo(areaLight(wide, left, 1).meanLx, 6);
  });
  test('where nothing lights to work by it says so, with the light that is missing', () => {
    const bare = { ...pumper, controls: { ...pumper.controls, functions: [] } };
    expect(said(bare, rule({}))).toEqual([
      'The ground at the left gets a mean of 0.0 lx, no function is a light to work by; at least 10 lx are wanted.',
      'The ground at the left gets a least of 0.0 lx, no function is a light to work by; at least 1 lx are wanted.',
    ]);
    expect(workLight.faults(new LayoutSubject(bare), rule({})).map(({ state }) => state)).toEqual([
      null,
      null,
    ]);
    const [mean] = workLight.faults(new LayoutSubject(pumper), rule({ area: 'rear' }));
    expect(mean?.figure?.unit).toBe('lx');
    expect(mean?.figure?.value).toBeLessThan(1);
    expect(mean?.limits).toEqual([{ value: 10, unit: 'lx', sense: 'at least' }]);
    expect(mean?.state?.on.length).toBeGreaterThan(0);
  });
});

describe('unnoticed with light inside', () => {
  const rule = (patch: Partial<RuleOf<'unnoticed'>>): RuleOf<'unnoticed'> => ({
    ...common,
    kind: 'unnoticed',
    eyeM: 1.6,
    farthestM: 100,
    ...patch,
  });
  /** A cabin light under the roof, switched on by a function of its own. */
  const lit = (level: number): Build => {
    const lamp = put(emptyBuild(), 'cabin', { fixture: 'cabin-white-red', zone: 'dome' });
    const target = { kind: 'set', setId: 'inside' } as const;
    const withSet = withControls(lamp, {
      sets: [fixedSet('inside', 'Inside', [{ placementId: 'cabin', moduleId: 'm1' }])],
    });
    return addFunction(
      withSet,
      newFunction(
        'cab-light',
        'Cab light',
        'light',
        {
          way: 'while',
          condition: { kind: 'is', input: 'ignition', values: ['on'] },
          afterMs: 0,
          staysMs: 0,
        },
        [lightCue(target, 1, 'steady', { level })],
      ),
      0,
    );
  };
  test('it is told how far off it is just seen, and from where', () => {
    const [sentence] = said(lit(1), rule({}));
    expect(sentence).toMatch(
      /^light inside is just seen from \d+ m( or farther)? at \d+°, Cab light on at night; no farther than 100 m is wanted\.$/i,
    );
    const farM = Number(/from (\d+) m/.exec(sentence ?? '')?.[1]);
    expect(farM).toBeGreaterThan(100);
    expect(said(lit(1), rule({ farthestM: farM }))).toEqual([]);
    expect(said(lit(1), rule({ farthestM: farM - 1 }))).toHaveLength(1);
    // A twentieth of the light is seen less far, by less than the square root of that: the air takes some, too.
    const dim = Number(/from (\d+) m/.exec(said(lit(0.05), rule({}))[0] ?? '')?.[1]);
    expect(dim).toBeLessThan(farM);
    expect(dim).toBeGreaterThan(farM / Math.sqrt(20) - 1);
  });
  test('a vehicle without light inside has nothing to be noticed by, nor does the light that warns count', () => {
    expect(said(emptyBuild(), rule({}))).toEqual([]);
    expect(said(car, rule({ farthestM: 20 }))).toEqual([]);
    // The pumper's compartments are lit by its stages, not by a light of their own.
    expect(said(pumper, rule({ farthestM: 20 }))).toEqual([]);
  });
  test('its sentence says all of it', () => {
    expect(ruleSentence(rule({}))).toBe(
      'At night, with every light inside on and everything shut, nobody whose eye is at 1.6 m just sees it from farther than 100 m.',
    );
  });
});
