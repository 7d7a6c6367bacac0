import { stagesOf } from '../design/controls.ts';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, changeStage, put } from '../../test/reference/places.ts';
import { stopsOf, vehicleOf } from '../vehicle/vehicle.ts';
import { drivenIn } from './driven.ts';
import { addFunction, removeFunction } from '../design/controlEdits.ts';
import { newFunction } from '../design/functions.ts';
import {
  bodyPoses,
  checkedFunctionSets,
  defaultState,
  modeOf,
  onsKey,
  openText,
  poseKey,
  posesOf,
  sameOpen,
  sameState,
  stateKey,
  stateOf,
  statesOf,
  stateWith,
} from './state.ts';

describe('states', () => {
  const build = demoBuild('ks-12');
  test('every stage in every pose in every light, once, the plainest first', () => {
    const states = statesOf(build);
    const stops = stopsOf(vehicleOf(build.vehicle)).length;
    expect(states).toHaveLength(stagesOf(build).length * 2 * (stops + 1));
    expect(new Set(states.map(stateKey)).size).toBe(states.length);
    expect(states[0]).toEqual({ on: ['off'], open: [], ambient: 'day' });
    expect(posesOf(build)[0]).toEqual([]);
  });
  test('the order in which stops are named makes no difference; the values do', () => {
    const a = stateWith({ on: ['stage-1'], open: ['hatch', 'bonnet'] });
    expect(sameState(a, stateWith({ on: ['stage-1'], open: ['bonnet', 'hatch'] }))).toBe(true);
    expect(sameState(a, { ...a, on: ['stage-2'] })).toBe(false);
    expect(sameState(a, { ...a, ambient: 'night' })).toBe(false);
    expect(sameState(a, { ...a, open: ['hatch'] })).toBe(false);
  });
});

describe('keys', () => {
  test('are of the set, not of its order, and tell its members apart', () => {
    expect(poseKey([])).toBe('');
    expect(poseKey(['hatch'])).toBe('hatch');
    expect(poseKey(['hatch', 'bonnet'])).toBe('bonnet+hatch');
    expect(poseKey(['bonnethatch'])).not.toBe(poseKey(['bonnet', 'hatch']));
    expect(onsKey(['stage-2', 'fog'])).toBe('fog+stage-2');
    expect(stateKey(stateWith({ on: ['b', 'a'], open: ['d', 'c'], ambient: 'night' }))).toBe('a+b|c+d|night');
    expect(stateKey(stateWith({}))).toBe('||day');
  });
  test('two poses are the same by what stands open', () => {
    expect(sameOpen(['hatch', 'bonnet'], ['bonnet', 'hatch'])).toBe(true);
    expect(sameOpen(['hatch'], ['bonnet'])).toBe(false);
    expect(sameOpen([], [])).toBe(true);
  });
});

describe('what is looked at first', () => {
  const without = (...ids: string[]) => ids.reduce(removeFunction, emptyBuild());
  test('the stage that warns in earnest; else the last there is; else nothing', () => {
    expect(defaultState(emptyBuild())).toEqual({ on: ['stage-2'], open: [], ambient: 'day' });
    expect(defaultState(without('stage-2')).on).toEqual([stagesOf(without('stage-2')).at(-1)?.id]);
    const none = without('stage-1', 'stage-2', 'stage-3', 'off');
    expect(defaultState(none)).toEqual({ on: [], open: [], ambient: 'day' });
  });
});

describe('poses', () => {
  const build = put(emptyBuild(), 'spot', {
    zone: 'grille',
    aims: [
      { id: 'right', name: 'to the right', panDeg: 60, tiltDeg: 0 },
      { id: 'down', name: 'down', panDeg: 0, tiltDeg: -20 },
    ],
  });
  const body = bodyPoses(vehicleOf(build.vehicle));
  test('everything closed, each stop of the body, and each aim by itself', () => {
    expect(body[0]).toEqual([]);
    expect(posesOf(build)).toEqual([...body, ['aim.spot=right'], ['aim.spot=down']]);
  });
  test('in words', () => {
    const car = emptyBuild();
    expect(openText(car, [])).toBe('everything closed');
    expect(openText(car, ['no-such'])).toBe('everything closed');
    expect(openText(car, ['hatch'])).toBe('hatch open');
    expect(openText(car, ['hatch', 'door-front-left'])).toBe('hatch and front left door open');
    const label = build.placements[0]?.label ?? '';
    expect(openText(build, ['aim.spot=down'])).toBe(`${label}, aim down`);
    // Not all of them open: each says how it stands.
    expect(openText(build, ['hatch', 'aim.spot=right'])).toBe(`hatch open and ${label}, aim to the right`);
  });
});

describe('modes', () => {
  const withCut = (mode: 0 | 2) =>
    addFunction(emptyBuild(), newFunction('cut', 'Cut', 'cut', { way: 'always' }, [], { mode }), 0);
  test('what takes light away counts where it says that no warning is on, and is never checked by itself', () => {
    expect(modeOf(withCut(0), ['cut', 'stage-2'])).toBe(0);
    expect(modeOf(withCut(2), ['cut', 'stage-3'])).toBe(3);
    expect(checkedFunctionSets(withCut(0))).toEqual(['off', 'stage-1', 'stage-2', 'stage-3']);
  });
  test('nothing that is on has one: none', () => {
    const lit = addFunction(emptyBuild(), newFunction('l', 'L', 'light', { way: 'always' }, []), 0);
    expect(modeOf(lit, ['l'])).toBe(0);
  });
});

describe('the state that one function makes', () => {
  const build = demoBuild('ks-12');
  test('is that function alone, with what else is said; one that is not there is refused', () => {
    expect(stateOf(build, 'stage-2')).toEqual({ on: ['stage-2'], open: [], ambient: 'day' });
    expect(stateOf(build, 'fog', { open: ['hatch'], ambient: 'night', on: ['stage-3'] })).toEqual({
      on: ['fog'],
      open: ['hatch'],
      ambient: 'night',
    });
    expect(() => stateOf(build, 'no-such')).toThrow(RangeError);
  });
});

describe('what is driven', () => {
  test('a night that changes nothing is the day’s own list; one that dims is another', () => {
    const build = changeStage(demoBuild('ks-12'), 2, { nightLevel: 1 });
    const day = drivenIn(build, { on: ['stage-2'], ambient: 'day' });
    expect(drivenIn(build, { on: ['stage-2'], ambient: 'night' })).toBe(day);
    const dimmed = changeStage(build, 2, { nightLevel: 0.5 });
    const night = drivenIn(dimmed, { on: ['stage-2'], ambient: 'night' });
    expect(night.map((d) => d.peakCd)).toEqual(day.map((d) => d.peakCd / 2));
    expect(drivenIn(dimmed, { on: ['stage-2'], ambient: 'day' })).toEqual(day);
  });
  test('a function that is not there is refused by name', () =>
    expect(() => drivenIn(emptyBuild(), { on: ['stage-9'], ambient: 'day' })).toThrow(
      /no function 'stage-9'; there are stage-3, stage-2, stage-1, off/,
    ));
});
