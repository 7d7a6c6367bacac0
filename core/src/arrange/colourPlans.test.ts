import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { addGroup } from '../design/timingEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { readBuild } from '../rules/document.ts';
import { describe, expect, test } from 'vitest';
import { COLOUR_PLANS, applyColourPlan } from './colourPlans.ts';
import { addPartner } from './lamps.ts';
import { drivenIn } from '../state/driven.ts';
import type { Build } from '../design/schema.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put, stageId } from '../../test/reference/places.ts';

const all = (build: Build): Set<string> => new Set(build.placements.map((p) => p.id));
const pair = (zone: string, fixture = 'perimeter-head-2'): Build =>
  addPartner(put(emptyBuild(), 'l', { zone, uM: zone === 'grille' ? 0.3 : -0.3, fixture }), 'l', 'r');
const colours = (build: Build) =>
  Object.fromEntries(build.placements.map((p) => [p.id, p.modules[0]?.colours]));

describe('a colour plan', () => {
  test('by side; both on both; a second colour only where it may show', () => {
    expect(colours(applyColourPlan(pair('grille'), new Set(['l', 'r']), 'side-split'))).toEqual({
      l: ['red'],
      r: ['blue'],
    });
    expect(colours(applyColourPlan(pair('grille'), new Set(['l', 'r']), 'both-sides'))).toEqual({
      l: ['red', 'blue'],
      r: ['red', 'blue'],
    });
    expect(colours(applyColourPlan(pair('grille'), new Set(['l', 'r']), 'red-white')).l).toEqual([
      'red',
      'white',
    ]);
    expect(colours(applyColourPlan(pair('rear-bumper'), new Set(['l', 'r']), 'red-white')).l).toEqual([
      'red',
    ]);
    expect(colours(applyColourPlan(pair('rear-bumper'), new Set(['l', 'r']), 'red-amber-rear')).l).toEqual([
      'red',
      'amber',
    ]);
  });
  test('takes no more colours than a head holds, and leaves floods and others alone', () => {
    const one = applyColourPlan(pair('grille', 'perimeter-head-1'), new Set(['l', 'r']), 'both-sides');
    expect(colours(one).l).toEqual(['red']);
    const flood = put(emptyBuild(), 'f', { zone: 'roof-side-left', fixture: 'scene-flood' });
    expect(applyColourPlan(flood, all(flood), 'amber')).toEqual(flood);
    const partly = applyColourPlan(pair('grille'), new Set(['l']), 'amber');
    expect(colours(partly).r).toEqual(['red']);
  });
  test('white in the top stage only, by the pattern of the first colour', () => {
    const car = demoBuild('ks-13');
    const laid = applyColourPlan(car, all(car), 'white-top');
    const white = (stage: number) =>
      drivenIn(laid, { on: [stageId(stage)], ambient: 'day' }).filter(
        (d) => d.colour === 'white' && d.groupId === 'front' && d.channelId.endsWith('/2'),
      ).length;
    expect([white(1), white(2)]).toEqual([0, 0]);
    expect(white(3)).toBeGreaterThan(0);
  });
  test('colour by stage: amber, red, both in turn', () => {
    const two = changeModules(
      addGroup(pair('grille'), { id: 'g', name: 'Front' }),
      ['l', 'r'].map((placementId) => ({ placementId, moduleId: 'm1' })),
      { groupId: 'g' },
    );
    const cued = ([1, 2, 3] as const).reduce(
      (b, stage) => setCue(b, stageId(stage), groupTarget('g'), 1, lightCue(groupTarget('g'), 1, 'double')),
      two,
    );
    const laid = applyColourPlan(cued, all(cued), 'by-stage');
    const shown = (stage: number) =>
      new Set(drivenIn(laid, { on: [stageId(stage)], ambient: 'day' }).map((d) => d.colour));
    expect([shown(1), shown(2), shown(3)]).toEqual([
      new Set(['amber']),
      new Set(['red']),
      new Set(['red', 'amber']),
    ]);
  });
  test('command: what can be green is, steady, in a group of its own', () => {
    const beacon = put(emptyBuild(), 'b', { zone: 'roof', fixture: 'beacon-low' });
    const laid = applyColourPlan(beacon, all(beacon), 'command-green');
    const drives = drivenIn(laid, { on: ['stage-2'], ambient: 'day' });
    expect(drives.map((d) => [d.colour, d.steady, d.groupId])).toEqual([['green', true, 'command']]);
  });
  test('any plan over any demo build reads back; laid twice is laid once', () => {
    for (const name of ['ks-12', 'tunnel-pumper-3', 'shore-medic-7'] as const)
      for (const plan of COLOUR_PLANS) {
        const build = demoBuild(name);
        const laid = applyColourPlan(build, all(build), plan);
        expect(readBuild(laid)).toEqual(laid);
        expect(applyColourPlan(laid, all(laid), plan)).toEqual(laid);
      }
  });
});
