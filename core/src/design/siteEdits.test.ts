import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { readBuild } from '../rules/document.ts';
import { addToSite, changeInSite, removeFromSite, setTraffic } from './siteEdits.ts';
import { MOST_OF_SITE, type EyePlace, type WorkPlace } from './site.ts';

const car = demoBuild('ks-13');
const panel: WorkPlace = {
  id: 'panel',
  name: 'Panel',
  xM: 0,
  yM: 1,
  zM: 1.2,
  facing: 'left',
  alongM: 1.2,
  acrossM: 0.8,
};
const eye: EyePlace = { id: 'eye', name: 'Eye', xM: 3, yM: -2, zM: 1.6, lookDeg: 180, upDeg: 0 };
const withBoth = addToSite(addToSite(car, 'workPlaces', panel), 'eyes', eye);

test('a work place and an eye are added, changed, read back and removed', () => {
  const changed = changeInSite(changeInSite(withBoth, 'workPlaces', 'panel', { zM: 2 }), 'eyes', 'eye', {
    lookDeg: 90,
  });
  expect(changed.workPlaces).toEqual([{ ...panel, zM: 2 }]);
  expect(changed.eyes).toEqual([{ ...eye, lookDeg: 90 }]);
  expect(readBuild(JSON.parse(JSON.stringify(changed)))).toEqual(changed);
  expect(removeFromSite(changed, 'eyes', 'eye').eyes).toEqual([]);
  expect(removeFromSite(changed, 'eyes', 'panel').workPlaces).toHaveLength(1);
  expect(changeInSite(withBoth, 'eyes', 'ghost', { lookDeg: 90 })).toEqual(withBoth);
  expect(setTraffic(car, 'left').traffic).toBe('left');
});

test('what cannot be so is refused by its field; one too many is refused; one id names one', () => {
  expect(() => changeInSite(withBoth, 'workPlaces', 'panel', { alongM: -1 })).toThrow(/alongM/);
  expect(() => changeInSite(withBoth, 'eyes', 'eye', { lookDeg: 360 })).toThrow(/lookDeg/);
  expect(() => changeInSite(withBoth, 'eyes', 'eye', { name: '<b>' })).toThrow(/name/);
  const full = Array.from({ length: MOST_OF_SITE }).reduce<typeof car>(
    (b, _, i) => addToSite(b, 'eyes', { ...eye, id: `e${i}` }),
    car,
  );
  expect(() => addToSite(full, 'eyes', eye)).toThrow(/at most 40/);
  const twice: unknown = JSON.parse(
    JSON.stringify({ ...withBoth, workPlaces: [panel, { ...panel, name: 'Other' }] }),
  );
  expect(() => readBuild(twice)).toThrow(/'panel' is used twice/);
  const elsewhere: unknown = JSON.parse(JSON.stringify({ ...withBoth, traffic: 'middle' }));
  expect(() => readBuild(elsewhere)).toThrow(/traffic: must be right or left/);
});
