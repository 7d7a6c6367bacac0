import { stagesOf } from '../design/controls.ts';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, changeStage } from '../../test/reference/places.ts';
import { stopsOf, vehicleOf } from '../vehicle/vehicle.ts';
import { drivenIn } from './driven.ts';
import { posesOf, sameState, stateKey, stateOf, statesOf, stateWith } from './state.ts';

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
