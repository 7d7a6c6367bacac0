import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { removePlacements } from '../arrange/lamps.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from './check.ts';
import { redundantLamps, type Redundant } from './redundant.ts';

function found(build: Build): { readonly lamps: readonly Redundant[]; readonly shares: readonly number[] } {
  const run = redundantLamps(build);
  const shares: number[] = [];
  for (;;) {
    const step = run.next();
    if (step.done === true) return { lamps: step.value, shares };
    shares.push(step.value);
  }
}
const labelled = (build: Build, { placementIds }: Redundant): (string | undefined)[] =>
  placementIds.map((id) => build.placements.find((p) => p.id === id)?.label);

describe('lamps to spare', () => {
  const truck = demoBuild('line-marking');
  const { lamps, shares } = found(truck);

  test('without any one of them nothing is found that was not', () => {
    const known = new Set(checkBuild(truck).findings.map(({ id }) => id));
    for (const { placementIds } of lamps) {
      const { findings } = checkBuild(removePlacements(truck, new Set(placementIds)));
      expect(findings.filter(({ id, severity }) => severity !== 'notes' && !known.has(id))).toEqual([]);
    }
  });
  test('the others are missed: what is not named breaks something, or makes it worse', () => {
    const named = new Set(lamps.flatMap(({ placementIds }) => placementIds));
    const board = truck.placements.find(({ fixtureId }) => fixtureId.includes('arrow'));
    if (board === undefined) throw new Error('the truck has an arrow');
    expect(named.has(board.id)).toBe(false);
  });
  test('what costs most comes first, each pair once, with the room it takes from a rule', () => {
    const prices = lamps.map(({ priceMinor }) => priceMinor);
    expect(prices).toEqual(prices.toSorted((a, b) => b - a));
    const ids = lamps.flatMap(({ placementIds }) => placementIds);
    expect(new Set(ids).size).toBe(ids.length);
    for (const { loses } of lamps) if (loses !== null) expect(loses.without).toBeLessThan(loses.with);
    expect(shares.at(-1)).toBe(1);
  });
});

test('when two that are to spare go, what is left is less to spare: alone on a face nothing is', () => {
  const car = demoBuild('ks-13');
  const all = found(car).lamps;
  const gone = new Set(all.slice(0, -1).flatMap(({ placementIds }) => placementIds));
  const poor = removePlacements(car, gone);
  expect(checkBuild(poor).findings.length).toBeGreaterThan(checkBuild(car).findings.length);
  expect(found(poor).lamps.length).toBeLessThan(all.length);
});

test('of a build that holds by little, only what no rule asks for is to spare', () => {
  const car = demoBuild('ks-12');
  const names = found(car).lamps.map((lamp) => labelled(car, lamp));
  expect(names).toContainEqual(['Rear door edge L', 'Rear door edge R']);
  // KS-12 holds little: its roof bar is not to spare.
  expect(names.flat()).not.toContain('Roof');
});
