import { changeBuild } from '@flarik/core/design/moduleEdits';
import { ruleSentence } from '@flarik/core/rules/registry';
import { describe, expect, test } from 'vitest';
import { checkBuild } from '@flarik/core/rules/check';
import { litChannels, ringOf } from '@flarik/core/coverage/ring';
import { History } from '../src/lib/editor/history';
import { matching, type Findable } from '../src/lib/frame/finder';
import { findingsOf, STEPS } from '../src/lib/frame/steps';
import { nameOf } from '../src/lib/editor/names';
import { gapsOf, whereabouts } from '@flarik/core/coverage/gaps';
import { demoBuild } from './support';

const build = demoBuild('ks-12');
const named = (name: string) => changeBuild(build, { name });

describe('undo and redo', () => {
  test('go back and forth over the very documents', () => {
    const history = new History();
    const [one, two] = [named('One'), named('Two')];
    history.record('First', build, one, null);
    history.record('Second', one, two, null);
    expect(history.undoLabel).toBe('Second');
    expect(history.undo()).toBe(one);
    expect(history.undo()).toBe(build);
    expect(history.undo()).toBeNull();
    expect(history.redoLabel).toBe('First');
    expect(history.redo()).toBe(one);
    expect(history.redo()).toBe(two);
    expect(history.redo()).toBeNull();
  });

  test('a new step forgets what was undone', () => {
    const history = new History();
    history.record('First', build, named('One'), null);
    history.undo();
    history.record('Other', build, named('Other'), null);
    expect(history.redoLabel).toBeNull();
  });

  test('steps of one gesture are one step, but not across an undo', () => {
    const history = new History();
    const [one, two, three] = [named('One'), named('Two'), named('Three')];
    history.record('Nudge', build, one, 'nudge a');
    history.record('Nudge', one, two, 'nudge a');
    expect(history.undo()).toBe(build);
    expect(history.redo()).toBe(two);
    history.record('Nudge', two, three, 'nudge a');
    expect(history.undo()).toBe(two);
  });
});

describe('the finder', () => {
  const items: Findable[] = ['Rear left corner', 'Rear right corner', 'Grille L'].map((text) => ({
    id: text,
    kind: 'Lamp',
    text,
    run: () => undefined,
  }));
  test('finds by every word, in any order, of text or kind', () => {
    expect(matching(items, 'left rear').map((i) => i.text)).toEqual(['Rear left corner']);
    expect(matching(items, 'LAMP')).toHaveLength(3);
    expect(matching(items, '')).toHaveLength(3);
    expect(matching(items, 'roof')).toEqual([]);
  });
  test('what begins as typed comes first', () => {
    const named = (text: string): Findable => ({ id: text, kind: 'Zone', text, run: () => undefined });
    const found = matching([named('Bar over the roof'), named('Roof: skin')], 'roof');
    expect(found.map((i) => i.text)).toEqual(['Roof: skin', 'Bar over the roof']);
  });
  test('shows the first few of many', () => {
    const many = Array.from({ length: 50 }, (_, i): Findable => ({
      id: `${i}`,
      kind: 'Zone',
      text: `z${i}`,
      run: () => undefined,
    }));
    expect(matching(many, 'zone')).toHaveLength(12);
  });
});

describe('findings by step', () => {
  const { findings } = checkBuild(build);
  test('each has one home; Rules has all', () => {
    const homes = STEPS.filter((s) => s.id !== 'rules').map((s) => findingsOf(s.id, findings).length);
    expect(homes.reduce((a, b) => a + b, 0)).toBe(findings.length);
    expect(findingsOf('rules', findings)).toEqual(findings);
  });
  test('flash rates belong to Timing, floors to Visibility', () => {
    expect(findingsOf('timing', findings).some((f) => f.kind === 'flash-rate')).toBe(true);
    expect(findingsOf('visibility', findings).every((f) => f.kind === 'power-floor')).toBe(true);
  });
});

describe('gaps in the ring', () => {
  const options = { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 } as const;
  const ring = ringOf(litChannels(build, { stage: 2, open: ['hatch'], ambient: 'night' }, options));
  const floor = (cdsPerMin: number) => new Float64Array(360).fill(cdsPerMin);

  test('are where the power is below the floor; no floor, no gap', () => {
    expect(gapsOf(ring, floor(0), null)).toEqual([]);
    const gaps = gapsOf(ring, floor(15_000), null);
    expect(gaps).toHaveLength(1);
    expect(gaps[0]).toEqual({ fromDeg: 169, toDeg: 186 });
    expect(gapsOf(ring, floor(1e9), null)).toEqual([{ fromDeg: 0, toDeg: 359 }]);
  });

  test('of one colour are where it is not noticed, whatever the floor', () => {
    const amber = { ...options, colour: 'amber' } as const;
    const lit = litChannels(build, { stage: 2, open: [], ambient: 'day' }, amber);
    const gaps = gapsOf(ringOf(lit), floor(0), 'amber');
    expect(gaps.some((g) => whereabouts(g) === 'front')).toBe(true);
  });

  test.each([
    [{ fromDeg: 350, toDeg: 10 }, 'front'],
    [{ fromDeg: 152, toDeg: 171 }, 'rear'],
    [{ fromDeg: 100, toDeg: 150 }, 'rear right'],
    [{ fromDeg: 260, toDeg: 280 }, 'left'],
    [{ fromDeg: 0, toDeg: 359 }, 'all round'],
  ])('%o lies %s', (sector, where) => expect(whereabouts(sector)).toBe(where));
});

describe('words', () => {
  test('lamps by name or by number', () => {
    expect(nameOf(build, ['grille'])).toBe('Grille L');
    expect(nameOf(build, ['grille', 'wing'])).toBe('2 lamps');
    expect(nameOf(build, ['gone'])).toBe('lamp');
  });
  test('a rule as a sentence', () => {
    const [pack] = build.rulePacks;
    const sentence = (id: string) => pack?.rules.filter((r) => r.id === id).map(ruleSentence)[0];
    expect(sentence('flash-rate')).toBe('Between 60 and 120 flashes a minute, in stage 1, 2, 3.');
    expect(sentence('white-rear')).toBe(
      'No white above 40 cd in all to the rear from lamps of any kind except reversing lamps that burn steadily, whatever stands open, in stage 1, 2, 3.',
    );
    expect(sentence('floor-rear-open')).toBe(
      'At least 15000 cd·s/min from warning lamps at every bearing to the rear by night, with everything shut, the hatch open, in stage 1, 2, 3.',
    );
  });
});
