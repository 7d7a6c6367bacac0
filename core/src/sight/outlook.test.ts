import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { directionOf } from '../geometry/direction.ts';
import { box } from '../geometry/solid.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { onOutlook, outlookOf, type Outlook } from './outlook.ts';
import { driverOf } from './stations.ts';
import { ROAD, Surfaces } from './surfaces.ts';

const car = lookupOf(demoBuild('ks-13')).vehicle;

/** The dot in which a direction lies. */
function dotAt({ columns, rows }: Outlook, bearing: number, elevation: number): number {
  const at = onOutlook(bearing, elevation);
  if (at === null) throw new Error(`${bearing}°, ${elevation}° is outside of the picture`);
  return (
    Math.min(rows - 1, Math.floor(at.y * rows)) * columns + Math.min(columns - 1, Math.floor(at.x * columns))
  );
}
const seenAt = (outlook: Outlook, bearing: number, elevation: number): string =>
  outlook.surfaces[outlook.cells[dotAt(outlook, bearing, elevation)] ?? -1] ?? 'sky';

test('a wall on the left hides the road and the sky from straight ahead to the left, as high as it is', () => {
  // 2 m to the left, 3 m high, from the eye on; the eye 1.5 m up: at 45° left it is 2.83 m off, its top 28° up.
  const wall = box('wall', [0, 2, 0], [100, 2.2, 3]);
  const outlook = outlookOf(new Surfaces(car, [wall], []), [0, 0, 1.5], 800);
  const at = (bearing: number, elevation: number) => seenAt(outlook, bearing, elevation);
  expect(at(-45, 22)).toBe('wall');
  expect(at(-45, -25)).toBe('wall');
  // Lower than where the wall meets the road, atan(1.5 / 2.83) = 27.9° down.
  expect(at(-45, -29)).toBe(ROAD);
  // At 30° left it is 4 m off, and its top atan(1.5 / 4) = 20.6° up.
  expect(at(-30, 21.5)).toBe('sky');
  expect(at(-30, 19.5)).toBe('wall');
  for (const elevation of [1, 10, 20]) expect(at(45, elevation)).toBe('sky');
  for (const elevation of [-1, -10, -30]) expect(at(45, elevation)).toBe(ROAD);
});

test('straight ahead is in the middle from side to side; a right angle to either side is its edge', () => {
  expect(onOutlook(0, 0)?.x).toBeCloseTo(0.5);
  expect(onOutlook(270, 0)?.x).toBeCloseTo(0);
  expect(onOutlook(90, 0)?.x).toBeCloseTo(1);
  // Twice tan 22.5° of twice 2.
  expect(onOutlook(45, 0)?.x).toBeCloseTo(0.5 + (2 * 0.41421) / 4, 5);
  expect(onOutlook(100, 0)).toBeNull();
  expect(onOutlook(0, 60)).toBeNull();
});

test.each(['ks-12', 'ks-13', 'tunnel-pumper-3'] as const)(
  '%s: every dot shows what a ray by itself meets first',
  (name) => {
    const build = demoBuild(name);
    const { vehicle } = lookupOf(build);
    const stops = vehicle.parts.flatMap((part) => part.stops.slice(0, 1).map(({ id }) => id));
    for (const open of [[], stops]) {
      const surfaces = Surfaces.of(build, open);
      const driver = driverOf(vehicle, 'right');
      if (driver === null) throw new Error(`${name} has a seat`);
      const outlook = outlookOf(surfaces, driver.eye, 240);
      const { columns, rows } = outlook;
      const top = Math.tan((27 * Math.PI) / 180);
      const bottom = Math.tan((-42 * Math.PI) / 180);
      const apart: string[] = [];
      for (let row = 0; row < rows; row += 3)
        for (let column = 0; column < columns; column += 3) {
          const across = (4 * (column + 0.5)) / columns - 2;
          const climb = (top - ((row + 0.5) * (top - bottom)) / rows) / (1 + across ** 2 / 4);
          const view = directionOf(
            (2 * Math.atan(across / 2) * 180) / Math.PI,
            (Math.atan(climb) * 180) / Math.PI,
          );
          const met = surfaces.first(driver.eye, view)?.surface ?? 'sky';
          const drawn = outlook.surfaces[outlook.cells[row * columns + column] ?? -1] ?? 'sky';
          if (met !== drawn) apart.push(`${column},${row}: ${drawn} for ${met}`);
        }
      expect(apart).toEqual([]);
    }
  },
);

test('a driver sees the dashboard below, the pillars aside, and through the windscreen the road', () => {
  const driver = driverOf(car, 'right');
  if (driver === null) throw new Error('the car has a seat');
  const outlook = outlookOf(Surfaces.of(demoBuild('ks-13'), []), driver.eye, 720);
  expect(seenAt(outlook, 0, 5)).toBe('sky');
  expect(seenAt(outlook, 0, -3)).toBe(ROAD);
  expect(seenAt(outlook, 0, -30)).toBe('dashboard');
  expect(outlook.surfaces).toEqual(expect.arrayContaining(['pillar a left', 'pillar a right', 'bonnet']));
  // Glass before it makes the sky darker than it is through an open window.
  expect(outlook.shades[dotAt(outlook, 0, 5)]).toBeLessThan(255);
});
