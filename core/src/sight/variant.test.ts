import { describe, expect, test } from 'vitest';
import { bruteRing } from '../../test/reference/bruteRing.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { mirrorBuild, removePlacements } from '../arrange/lamps.ts';
import { stateWith } from '../state/state.ts';
import { modesOf, variantOf, type Variant } from './variant.ts';

const car = demoBuild('ks-13');
const of = (build = car, mode = 2): Variant => {
  const found = variantOf(build, mode, 'day');
  if (found === null) throw new Error(`mode ${mode} is there`);
  return found;
};

describe('what one way to equip a vehicle comes to', () => {
  test('its modes are those of its stages; one that it has not is nothing', () => {
    expect(modesOf(car)).toEqual([1, 2, 3]);
    expect(modesOf({ ...car, controls: { ...car.controls, functions: [] } })).toEqual([]);
    expect(variantOf({ ...car, controls: { ...car.controls, functions: [] } }, 2, 'day')).toBeNull();
  });

  test('light by face is that of the ring counted out', () => {
    const { light, on } = of();
    expect(on).toBe('stage-2');
    const { powerCdsPerMin } = bruteRing(car, stateWith({ on: ['stage-2'] }), 0);
    const rear = Array.from({ length: 91 }, (_, i) => powerCdsPerMin[135 + i] ?? NaN);
    expect(light.rear.least).toBeCloseTo(Math.min(...rear), 3);
    expect(light.rear.mean).toBeCloseTo(rear.reduce((a, b) => a + b, 0) / rear.length, 3);
    const front = [...Array(91).keys()].map((i) => powerCdsPerMin[(315 + i) % 360] ?? NaN);
    expect(light.front.least).toBeCloseTo(Math.min(...front), 3);
  });

  test('a mirrored build has its sides changed over, and all else alike', () => {
    const [mine, mirrored] = [of(), of(mirrorBuild(car))];
    expect(mirrored.light.left.least).toBeCloseTo(mine.light.right.least, 6);
    expect(mirrored.light.right.mean).toBeCloseTo(mine.light.left.mean, 6);
    expect(mirrored.counts).toEqual(mine.counts);
    expect(mirrored.perHundred).toBeCloseTo(mine.perHundred ?? NaN, 6);
  });

  test('without a head of its grille there is less light ahead, less current, less to pay', () => {
    const [mine, less] = [of(), of(removePlacements(car, new Set(['grille'])))];
    expect(less.light.front.mean).toBeLessThan(mine.light.front.mean);
    expect(less.current.meanA).toBeLessThan(mine.current.meanA);
    expect(less.meanW / less.current.meanA).toBeCloseTo(12.8, 9);
    expect(less.meanW).toBeLessThan(mine.meanW);
    expect(less.counts.costMinor).toBeLessThan(mine.counts.costMinor);
    const allRound = ({ light: { front, right, rear, left } }: Variant): number =>
      (front.mean + right.mean + rear.mean + left.mean) / 4;
    // 91 bearings to a face, those between two faces twice: nearly the mean all round.
    expect((mine.perHundred ?? NaN) / (allRound(mine) / (mine.counts.costMinor / 10_000))).toBeCloseTo(1, 1);
  });

  test('where nothing is bought nothing is held against money', () => {
    const kept = { ...car, placements: car.placements.map((p) => ({ ...p, status: 'kept' as const })) };
    expect(of(kept).perHundred).toBeNull();
    expect(of(kept).light).toEqual(of().light);
  });
});
