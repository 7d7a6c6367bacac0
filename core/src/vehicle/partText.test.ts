import { expect, test } from 'vitest';
import { BODY_TYPES } from './bodies/bodyTypes.ts';
import { partText } from './partText.ts';
import { defaultSpec } from './spec.ts';
import { vehicleOf } from './vehicle.ts';

test.each([
  ['pillar a left', 'left A-pillar'],
  ['pillar-b-right-upper', 'upper right B-pillar'],
  ['wing right', 'right front wing'],
  ['box side left above 2', 'upper left body side'],
  ['van-side-right-post-end', 'right side wall post'],
  ['nose', 'front end'],
  ['windscreen', 'windscreen'],
  ['road', 'road'],
  ['front left door', 'front left door'],
  ['front seat left', 'left front seat'],
])('%s is the %s', (id, name) => {
  expect(partText(id)).toBe(name);
});

test('no piece of any body is told by a number, or by its side last', () => {
  const texts = BODY_TYPES.flatMap(({ id }) =>
    vehicleOf(defaultSpec(id))
      .solids.filter(({ partId }) => partId === null)
      .map((solid) => partText(solid.id)),
  );
  expect(texts.length).toBeGreaterThan(300);
  expect(
    texts.filter((text) => /\d|\b(left|right|above|below|end)$/.test(text.replace('front end', ''))),
  ).toEqual([]);
});
