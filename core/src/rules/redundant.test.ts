import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { removePlacements } from '../arrange/lamps.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from './check.ts';
import type { CheckResult } from './finding.ts';
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

test('lamps to spare: without any of them nothing is found that was not; what costs most comes first', () => {
  const truck = demoBuild('line-marking');
  const { lamps, shares } = found(truck);
  const base = checkBuild(truck);
  const known = new Set(base.findings.map(({ id }) => id));
  const margins = (of: CheckResult): ReadonlyMap<string, number> =>
    new Map(of.outcomes.flatMap((o) => (o.margin === null ? [] : [[`${o.packId} ${o.ruleId}`, o.margin]])));
  const had = margins(base);
  expect(lamps.length).toBeGreaterThan(1);
  for (const { placementIds, loses } of lamps) {
    const without = checkBuild(removePlacements(truck, new Set(placementIds)));
    expect(without.findings.filter(({ id, severity }) => severity !== 'notes' && !known.has(id))).toEqual([]);
    // The rule that loses most room, by looking at each.
    const lost = [...margins(without)]
      .map(([rule, left]) => ({ rule, had: had.get(rule) ?? left, left }))
      .toSorted((x, y) => y.had - y.left - (x.had - x.left))[0];
    if (lost === undefined || lost.had - lost.left < 1e-6) expect(loses).toBeNull();
    else
      expect(loses).toEqual({
        packId: lost.rule.split(' ')[0],
        ruleId: lost.rule.split(' ')[1],
        with: lost.had,
        without: lost.left,
      });
  }
  expect(lamps.some(({ loses }) => loses !== null)).toBe(true);
  const prices = lamps.map(({ priceMinor }) => priceMinor);
  expect(prices).toEqual(prices.toSorted((x, y) => y - x));
  const ids = lamps.flatMap(({ placementIds }) => placementIds);
  expect(new Set(ids).size).toBe(ids.length);
  expect(shares.at(-1)).toBe(1);
  // The others are missed: what is not named breaks something, or makes it worse.
  const board = truck.placements.find(({ fixtureId }) => fixtureId.includes('arrow'));
  expect(board).toBeDefined();
  expect(ids).not.toContain(board?.id);
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
