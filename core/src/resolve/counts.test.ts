import { describe, expect, test } from 'vitest';
import { flashRate } from '../rules/kinds/flashRate.ts';
import { countsOf } from './counts.ts';
import { changePlacement, setColour } from '../arrange/lamps.ts';
import { importFixtures } from '../design/fixtureEdits.ts';
import { lookupOf } from './lookup.ts';
import { patternMisfit } from '../rules/allowedPattern.ts';
import { LIBRARY } from '../timing/book.ts';
import { PATTERNS } from '../timing/library.ts';
import { demoBuild, demoPack } from '../../test/reference/demo.ts';
import { emptyBuild, put, stageId } from '../../test/reference/places.ts';

describe('what a layout comes to', () => {
  const head = lookupOf(emptyBuild()).fixture('perimeter-head-2');
  const one = put(emptyBuild(), 'a', { zone: 'rear-bumper', uM: 0.3 });

  test('one head: a module, a channel for each colour, its holes, price and time', () => {
    expect(countsOf(one)).toEqual({
      heads: 1,
      modules: 1,
      channels: 1,
      holes: head.holes,
      costMinor: head.priceMinor,
      installMinutes: head.installMinutes,
      leadDays: 0,
    });
    const two = setColour(one, [{ placementId: 'a', moduleId: 'm1' }], 2, 'white');
    expect(countsOf(two).channels).toBe(2);
    expect(countsOf(emptyBuild())).toMatchObject({ heads: 0, costMinor: 0, leadDays: 0 });
  });

  test.each([
    ['kept', { heads: 1, holes: 0, costMinor: 0, installMinutes: 0 }],
    ['reused', { heads: 1, holes: head.holes, costMinor: 0, installMinutes: head.installMinutes }],
    ['removed', { heads: 0, holes: 0, costMinor: 0, installMinutes: 0 }],
  ] as const)('%s', (status, counts) => {
    expect(countsOf(changePlacement(one, 'a', { status }))).toMatchObject(counts);
  });

  test('held by bracket it makes no holes', () => {
    expect(countsOf(changePlacement(one, 'a', { fixing: 'bracket' })).holes).toBe(0);
  });

  test('the last part comes when the shelf is empty, and not before more are wanted than lie there', () => {
    const scarce = { ...head, id: 'own-scarce', inStock: 1, leadDays: 9 };
    const shop = importFixtures(emptyBuild(), [scarce]).build;
    const first = put(shop, 'a', { fixture: 'own-scarce', zone: 'grille', uM: 0.2 });
    expect(countsOf(first).leadDays).toBe(0);
    const second = put(first, 'b', { fixture: 'own-scarce', zone: 'grille', uM: -0.2 });
    expect(countsOf(second).leadDays).toBe(9);
    expect(countsOf(changePlacement(second, 'b', { status: 'reused' })).leadDays).toBe(0);
  });

  test('the pumper is the largest demo build', () => {
    const counts = countsOf(demoBuild('tunnel-pumper-3'));
    expect(counts.heads).toBeGreaterThanOrEqual(60);
    expect(counts.channels).toBeGreaterThanOrEqual(240);
    expect(lookupOf(demoBuild('tunnel-pumper-3')).vehicle.solids.length).toBeGreaterThanOrEqual(40);
  });
});

describe('patterns that packs allow', () => {
  const police = { ...emptyBuild(), rulePacks: [demoPack()] };
  test('by the rate rule of the stage, its services, and steady light never', () => {
    const [rule] = demoPack().rules.flatMap((r) => flashRate.of(r) ?? []);
    if (rule === undefined) throw new Error('the by-law has a rate');
    const stage = rule.stages[0] ?? 2;
    expect(patternMisfit(police, stageId(stage), LIBRARY.cycle('double'))).toBeNull();
    expect(patternMisfit(police, stageId(stage), LIBRARY.cycle('slow-alternate'))).toBe(
      `${rule.minPerMinute} to ${rule.maxPerMinute} flashes/min are permitted`,
    );
    expect(patternMisfit(police, stageId(stage), LIBRARY.cycle('steady'))).toBeNull();
    expect(patternMisfit(emptyBuild(), stageId(stage), LIBRARY.cycle('slow-alternate'))).toBeNull();
    const others: typeof police = {
      ...police,
      rulePacks: [{ ...demoPack(), rules: [{ ...rule, services: ['fire'] }] }],
    };
    expect(patternMisfit(others, stageId(stage), LIBRARY.cycle('slow-alternate'))).toBeNull();
  });
  test('agrees with the check for every pattern of the library', () => {
    const [rule] = demoPack().rules.flatMap((r) => flashRate.of(r) ?? []);
    if (rule === undefined) throw new Error('the by-law has a rate');
    for (const p of PATTERNS) {
      const cycle = LIBRARY.cycle(p.id);
      const within =
        p.id === 'steady' ||
        (cycle.slowestPerMinute >= rule.minPerMinute && cycle.fastestPerMinute <= rule.maxPerMinute);
      expect(patternMisfit(police, stageId(rule.stages[0] ?? 2), cycle) === null, p.id).toBe(within);
    }
  });
});
