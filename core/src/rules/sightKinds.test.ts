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
import { runToCompletion } from '../words/inSteps.ts';
import { LayoutSubject } from './layout/subject.ts';
import { ruleSentence, type Rule, type RuleOf } from './registry.ts';
import { formatQuantity } from '../words/quantity.ts';

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
        /^The vehicle, normal vision: detected at 174 m, stopping distance 214 m, margin −1\.3 s \(minimum 0 s\)\./,
      ),
      // Much later with the hatch up, which the first does not say.
      expect.stringMatching(
        /^The vehicle, normal vision: detected at 134 m, stopping distance 214 m, margin −2\.6 s \(minimum 0 s\)\./,
      ),
    ]);
    expect(said(car, rule({ speedKmh: 60 }))).toEqual([]);
    expect(said(car, rule({ speedKmh: 60, spareS: 20 }))).not.toEqual([]);
  });
  test('every observer is asked, and a colour alone', () => {
    const all = rule({ speedKmh: 90, fromDeg: 0, shown: 'red', eyes: 'every' });
    const told = said(car, all).join(' ');
    expect(told).toMatch(
      /^Red light, normal vision: detected at 149 m, stopping distance 154 m, margin −0\.2 s \(minimum 0 s\)\. Red light, protan \(red-deficient\) driver: detected /,
    );
    expect(said(car, rule({ speedKmh: 60, shown: 'green' }))[0]).toMatch(
      /^Green light, normal vision: not detected at 20 m, stopping distance 83 m, margin −5\.0 s \(minimum 0 s\)\./,
    );
  });
  test('on a grade where no brake holds nothing is in time', () => {
    expect(
      said(car, rule({ gradePercent: -15, weather: 'rain', around: 'night', speedKmh: 250 })),
    ).not.toEqual([]);
  });
  test('its sentence says all of it', () => {
    expect(ruleSentence(rule({}))).toBe(
      'A driver at 110 km/h from 180°, eye at 1.08 m, gradient 0 %, in fog by day, detects any light at 1 times the threshold, with normal vision, at least 0 s before braking is required, in stage 2.',
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
      /^Glare, following driver at 10 m: threshold increment 26,839 % \(limit 100 %\)\. Main source: 4 lamps\./,
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
      /^Fog backscatter at the driver’s eye: 262 % of fog luminance \(limit 1 %\)\. Main source: 4 lamps\./,
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
      /^Illuminance at the eye, a person at the rear, facing it: 5,190 lx \(limit 0\.1 lx\)\./,
    );
    expect(said(car, rule(1e6))).toEqual([]);
    const [found] = checkBuild({ ...car, rulePacks: [packOf(rule(0.1))] }).findings.filter(
      ({ packId }) => packId === 'test',
    );
    expect(found?.figure?.unit).toBe('lx');
    expect(found?.sentence).toContain(formatQuantity(found?.figure?.value ?? NaN, 'lx', 'up'));
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
        /^Ground illuminance, rear: average 0\.0 lx, with White override, Left alley, Right alley, Scene light \(minimum 10 lx\)\./,
      ),
      expect.stringMatching(
        /^Ground illuminance, rear: minimum 0\.0 lx, with White override, Left alley, Right alley, Scene light \(minimum 1 lx\)\./,
      ),
    ]);
    expect(said(pumper, rule({ meanLx: 5000 }))).toHaveLength(1);
  });
  test('all of the ground is asked that people work on, 3 m wide', () => {
    const scene = pumper.controls.functions.filter(({ kind }) => kind === 'light').map(({ id }) => id);
    const outline = outlineOf(lookupOf(pumper).vehicle);
    const lamps = sourcesOf(lightsIn(pumper, stateWith({ on: scene })), 'steady');
    const wide = runToCompletion(groundGrid(lamps, outline, { stepM: 0.5, beyondM: 6 }));
    const left = workAreasOf(outline).find(({ id }) => id === 'left');
    if (left === undefined) throw new Error('no ground at the left');
    expect(left.leftY - left.rightY).toBeCloseTo(3, 6);
    const [mean] = workLight.findIssues(new LayoutSubject(pumper), rule({ meanLx: 5000 }));
    expect(mean?.figure?.value).toBeCloseTo(areaLight(wide, left, 1).meanLx, 6);
  });
  test('where nothing lights to work by it says so, with the light that is missing', () => {
    const bare = { ...pumper, controls: { ...pumper.controls, functions: [] } };
    expect(said(bare, rule({}))).toEqual([
      'Ground illuminance, left: average 0.0 lx, no work light function (minimum 10 lx).',
      'Ground illuminance, left: minimum 0.0 lx, no work light function (minimum 1 lx).',
    ]);
    expect(workLight.findIssues(new LayoutSubject(bare), rule({})).map(({ state }) => state)).toEqual([
      null,
      null,
    ]);
    const [mean] = workLight.findIssues(new LayoutSubject(pumper), rule({ area: 'rear' }));
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
    expect(sentence).toMatch(/^Interior light: detection distance 3000 m or farther at 0° \(limit 100 m\)\./);
    const farM = Number(/distance (\d+) m/.exec(sentence ?? '')?.[1]);
    expect(farM).toBeGreaterThan(100);
    expect(said(lit(1), rule({ farthestM: farM }))).toEqual([]);
    expect(said(lit(1), rule({ farthestM: farM - 1 }))).toHaveLength(1);
    // A twentieth of the light is seen less far, by less than the square root of that: the air takes some, too.
    const dim = Number(/distance (\d+) m/.exec(said(lit(0.05), rule({}))[0] ?? '')?.[1]);
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
      'At night, with all interior lights on and everything closed, from a height of 1.6 m the detection distance of interior light is at most 100 m.',
    );
  });
});
