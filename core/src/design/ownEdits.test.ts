import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { readBuild } from '../rules/document.ts';
import { addOwn, changeOwn, removeOwn, setFinish, setTraffic } from './ownEdits.ts';
import { usualApproaches } from '../sight/usualApproaches.ts';
import type { Build } from './schema.ts';
import { MOST_OWN, type EyePlace, type WorkPlace } from './site.ts';

const car = demoBuild('ks-13');
const panel: WorkPlace = {
  id: 'panel',
  name: 'Panel',
  xM: 0,
  yM: 1,
  zM: 1.2,
  facing: 'left',
  shape: { kind: 'rectangle', alongM: 1.2, acrossM: 0.8 },
};
const eye: EyePlace = { id: 'eye', name: 'Eye', xM: 3, yM: -2, zM: 1.6, lookDeg: 180, upDeg: 0 };
const withBoth = addOwn(addOwn(car, 'workPlaces', panel), 'eyes', eye);

test('a work place and an eye are added, changed, read back and removed', () => {
  const changed = changeOwn(changeOwn(withBoth, 'workPlaces', 'panel', { zM: 2 }), 'eyes', 'eye', {
    lookDeg: 90,
  });
  expect(changed.workPlaces).toEqual([{ ...panel, zM: 2 }]);
  expect(changed.eyes).toEqual([{ ...eye, lookDeg: 90 }]);
  expect(readBuild(JSON.parse(JSON.stringify(changed)))).toEqual(changed);
  expect(removeOwn(changed, 'eyes', 'eye').eyes).toEqual([]);
  expect(removeOwn(changed, 'eyes', 'panel').workPlaces).toHaveLength(1);
  expect(changeOwn(withBoth, 'eyes', 'ghost', { lookDeg: 90 })).toEqual(withBoth);
  expect(setTraffic(car, 'left').traffic).toBe('left');
});

test('what cannot be so is refused by its field; one too many is refused; one id names one', () => {
  expect(() =>
    changeOwn(withBoth, 'workPlaces', 'panel', { shape: { kind: 'rectangle', alongM: -1, acrossM: 1 } }),
  ).toThrow(/alongM/);
  expect(() => changeOwn(withBoth, 'eyes', 'eye', { lookDeg: 360 })).toThrow(/lookDeg/);
  expect(() => changeOwn(withBoth, 'eyes', 'eye', { name: '<b>' })).toThrow(/name/);
  const full = Array.from({ length: MOST_OWN }).reduce<typeof car>(
    (b, _, i) => addOwn(b, 'eyes', { ...eye, id: `e${i}` }),
    car,
  );
  expect(() => addOwn(full, 'eyes', eye)).toThrow(/at most 40/);
  const twice: unknown = JSON.parse(
    JSON.stringify({ ...withBoth, workPlaces: [panel, { ...panel, name: 'Other' }] }),
  );
  expect(() => readBuild(twice)).toThrow(/'panel' is used twice/);
  const elsewhere: unknown = JSON.parse(JSON.stringify({ ...withBoth, traffic: 'middle' }));
  expect(() => readBuild(elsewhere)).toThrow(/traffic: must be right or left/);
});

test('an approach of its own is like a usual one, changed by its fields', () => {
  const [usual] = usualApproaches('other');
  if (usual === undefined) throw new Error('there are usual approaches');
  const one = addOwn(car, 'approaches', { ...usual, id: 'mine' });
  const patch = { name: 'Tractor over the hill', speedKmh: 40, crest: { lengthM: 120, changePercent: 6 } };
  const changed = changeOwn(one, 'approaches', 'mine', patch);
  expect(changed.approaches).toEqual([{ ...usual, id: 'mine', ...patch }]);
  expect(readBuild(JSON.parse(JSON.stringify(changed)))).toEqual(changed);
  expect(removeOwn(changed, 'approaches', 'mine').approaches).toEqual([]);
  expect(() => changeOwn(one, 'approaches', 'mine', { speedKmh: 900 })).toThrow(/speedKmh/);
  expect(() => changeOwn(one, 'approaches', 'mine', { eyeM: 9 })).toThrow(/eyeM/);
});

describe('what surfaces throw back', () => {
  const build: Build = { ...car, finishes: [] };

  test('is said, said anew, and left to be as usual', () => {
    const matt = setFinish(setFinish(build, 'bonnet', 6), 'road', 11);
    expect(matt.finishes).toEqual([
      { surface: 'bonnet', percent: 6 },
      { surface: 'road', percent: 11 },
    ]);
    expect(setFinish(matt, 'bonnet', 80).finishes).toEqual([
      { surface: 'road', percent: 11 },
      { surface: 'bonnet', percent: 80 },
    ]);
    expect(setFinish(matt, 'bonnet', null).finishes).toEqual([{ surface: 'road', percent: 11 }]);
  });

  test('more than comes, or of no surface, is one clear error; so is one more than a build holds', () => {
    expect(() => setFinish(build, 'bonnet', 96)).toThrow(/percent/);
    expect(() => setFinish(build, '', 50)).toThrow(/surface/);
    const many = Array.from({ length: 40 }, (_, i) => `s${i}`).reduce<Build>(
      (b, s) => setFinish(b, s, 1),
      build,
    );
    expect(() => setFinish(many, 'one more', 1)).toThrow(/at most 40 finishes/);
    expect(setFinish(many, 's3', 2).finishes).toHaveLength(40);
  });

  test('a file that names a surface twice is not read', () => {
    const twice = { ...build, finishes: [1, 2].map((percent) => ({ surface: 'road', percent })) };
    expect(() => readBuild(JSON.parse(JSON.stringify(twice)))).toThrow(
      /finishes: must name each surface once/,
    );
  });
});
