import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { box } from '../geometry/solid.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { outlookOf, OUTLOOK_DEG } from './outlook.ts';
import { driverOf } from './stations.ts';
import { ROAD, Surfaces } from './surfaces.ts';

const car = lookupOf(demoBuild('ks-13')).vehicle;
const { aside, down } = OUTLOOK_DEG;

test('a wall on the left hides the road and the sky from straight ahead to the left, as high as it is', () => {
  // 2 m to the left, 3 m high, from the eye on; the eye 1.5 m up: at 45° left it is 2.83 m off, its top 28° up.
  const wall = box('wall', [0, 2, 0], [100, 2.2, 3]);
  const { columns, rows, surfaces, cells } = outlookOf(new Surfaces(car, [wall], []), [0, 0, 1.5]);
  const at = (bearing: number, elevation: number): string =>
    surfaces[cells[(elevation + down) * columns + bearing + aside] ?? -1] ?? 'sky';
  expect(cells).toHaveLength(columns * rows);
  expect(at(-45, 25)).toBe('wall');
  expect(at(-45, -25)).toBe('wall');
  // Lower than where the wall meets the road, atan(1.5 / 2.83) = 27.9° down.
  expect(at(-45, -29)).toBe(ROAD);
  expect(at(-30, 21)).toBe('sky');
  expect(at(-30, 20)).toBe('wall');
  for (const elevation of [1, 10, 25]) expect(at(45, elevation)).toBe('sky');
  for (const elevation of [-1, -10, -45]) expect(at(45, elevation)).toBe(ROAD);
});

test('a driver sees the dashboard below, the pillars aside, and the sky through the windscreen', () => {
  const driver = driverOf(car, 'right');
  if (driver === null) throw new Error('the car has a seat');
  const { columns, surfaces, cells } = outlookOf(Surfaces.of(demoBuild('ks-13'), []), driver.eye);
  const at = (bearing: number, elevation: number): number =>
    cells[(elevation + down) * columns + bearing + aside] ?? -2;
  expect(at(0, 5)).toBe(-1);
  expect(surfaces[at(0, -3)]).toBe(ROAD);
  expect(surfaces[at(0, -30)]).toBe('dashboard');
  expect(surfaces).toEqual(expect.arrayContaining(['pillar a left', 'pillar a right', 'bonnet']));
});
