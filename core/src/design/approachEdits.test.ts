import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { readBuild } from '../rules/document.ts';
import { USUAL_APPROACHES } from '../sight/usualApproaches.ts';
import { addApproach, changeApproach, removeApproach } from './approachEdits.ts';
import { MOST_APPROACHES } from './approach.ts';

const car = demoBuild('ks-13');
const [usual] = USUAL_APPROACHES;
if (usual === undefined) throw new Error('there are usual approaches');
const one = addApproach(car, usual, 'mine');

test('an approach of its own is added, changed, read back and removed; the usual ones stay', () => {
  const changed = changeApproach(one, 'mine', {
    name: 'Tractor over the hill',
    speedKmh: 40,
    crest: { lengthM: 120, changePercent: 6 },
  });
  expect(changed.approaches).toEqual([
    {
      ...usual,
      id: 'mine',
      name: 'Tractor over the hill',
      speedKmh: 40,
      crest: { lengthM: 120, changePercent: 6 },
    },
  ]);
  expect(readBuild(JSON.parse(JSON.stringify(changed)))).toEqual(changed);
  expect(removeApproach(changed, 'mine').approaches).toEqual([]);
  expect(changeApproach(one, 'ghost', { speedKmh: 40 })).toEqual(one);
});

test('what cannot be so is refused by its field; one too many is refused; one id names one', () => {
  expect(() => changeApproach(one, 'mine', { speedKmh: 900 })).toThrow(/speedKmh/);
  expect(() => changeApproach(one, 'mine', { eyeM: 9 })).toThrow(/eyeM/);
  const full = Array.from({ length: MOST_APPROACHES }).reduce<typeof car>(
    (b, _, i) => addApproach(b, usual, `a${i}`),
    car,
  );
  expect(() => addApproach(full, usual, 'more')).toThrow(/at most 40/);
  const twice: unknown = JSON.parse(
    JSON.stringify({ ...one, approaches: [...one.approaches, ...one.approaches] }),
  );
  expect(() => readBuild(twice)).toThrow(/'mine' is used twice/);
});
