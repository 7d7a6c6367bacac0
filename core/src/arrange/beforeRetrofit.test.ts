import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { readBuild } from '../rules/document.ts';
import { drivenIn } from '../state/driven.ts';
import { stateWith } from '../state/state.ts';
import { beforeRetrofit, isRetrofit } from './beforeRetrofit.ts';
import { changePlacement } from './lamps.ts';

const car = demoBuild('ks-13');
const [first, second] = car.placements.filter(({ partnerId }) => partnerId === null);
const third = car.placements.find(({ partnerId }) => partnerId !== null);
if (first === undefined || second === undefined || third === undefined) throw new Error('there are lamps');
const retrofit = changePlacement(
  changePlacement(changePlacement(car, first.id, { status: 'kept' }), second.id, { status: 'removed' }),
  third.id,
  { status: 'reused' },
);

test('before there was what is kept and what is taken off; the others came with the work', () => {
  const before = beforeRetrofit(retrofit);
  expect(before.placements.map(({ id, status }) => [id, status])).toEqual(
    retrofit.placements.filter(({ id }) => id === first.id || id === second.id).map(({ id }) => [id, 'kept']),
  );
  expect(readBuild(JSON.parse(JSON.stringify(before)))).toEqual(before);
});

test('what is taken off lights before, and not after', () => {
  const state = stateWith({ on: ['stage-3'] });
  const litIn = (build: typeof car, id: string) => drivenIn(build, state).some((d) => d.placementId === id);
  expect(litIn(car, second.id)).toBe(true);
  expect(litIn(retrofit, second.id)).toBe(false);
  expect(litIn(beforeRetrofit(retrofit), second.id)).toBe(true);
});

test('a vehicle on which nothing was has no before', () => {
  expect(isRetrofit(car)).toBe(false);
  expect(isRetrofit(retrofit)).toBe(true);
  expect(beforeRetrofit(car).placements).toEqual([]);
});
