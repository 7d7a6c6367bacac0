import { describe, expect, test } from 'vitest';
import { litChannels, ringOf } from './ring.ts';
import { gapsOf, MISSED_CD, positionName } from './gaps.ts';
import { sectorText } from './sectors.ts';
import { demoBuild } from '../../test/reference/demo.ts';

const build = demoBuild('ks-12');

describe('gaps in the ring', () => {
  const options = { elevationDeg: 0, colour: null, level: 'any', upperAboveM: 1.5 } as const;
  const ring = ringOf(litChannels(build, { on: ['stage-2'], open: ['hatch'], ambient: 'night' }, options));
  const floor = (cdsPerMin: number) => new Float64Array(360).fill(cdsPerMin);

  test('are where the power is below the floor; no floor, no gap', () => {
    expect(gapsOf(ring, floor(0), null)).toEqual([]);
    const gaps = gapsOf(ring, floor(15_000), null);
    expect(gaps).toHaveLength(1);
    expect(gaps[0]).toEqual({ fromDeg: 169, toDeg: 186 });
    expect(gapsOf(ring, floor(1e9), null)).toEqual([{ fromDeg: 0, toDeg: 359 }]);
  });

  test('as much as is asked is enough, and what is just noticed is', () => {
    const power = new Float64Array(360).fill(100);
    const even = { powerCdsPerMin: power, effectiveCd: new Float64Array(360).fill(MISSED_CD) };
    expect(gapsOf(even, floor(100), null)).toEqual([]);
    expect(gapsOf(even, floor(100.1), null)).toEqual([{ fromDeg: 0, toDeg: 359 }]);
    expect(gapsOf(even, floor(0), 'red')).toEqual([]);
    even.effectiveCd[7] = MISSED_CD - 0.1;
    const [gap] = gapsOf(even, floor(0), 'red');
    expect(gap).toEqual({ fromDeg: 7, toDeg: 7 });
    expect(gap === undefined ? '' : sectorText(gap)).toBe('7°');
    expect(sectorText({ fromDeg: 350, toDeg: 10 })).toBe('350°–10°');
  });

  test('of one colour are where it is not noticed, whatever the floor', () => {
    const amber = { ...options, colour: 'amber' } as const;
    const lit = litChannels(build, { on: ['stage-2'], open: [], ambient: 'day' }, amber);
    const gaps = gapsOf(ringOf(lit), floor(0), 'amber');
    expect(gaps.some((g) => positionName(g) === 'front')).toBe(true);
  });

  test.each([
    [{ fromDeg: 350, toDeg: 10 }, 'front'],
    [{ fromDeg: 152, toDeg: 171 }, 'rear'],
    [{ fromDeg: 100, toDeg: 150 }, 'rear right'],
    [{ fromDeg: 260, toDeg: 280 }, 'left'],
    [{ fromDeg: 0, toDeg: 359 }, 'all round'],
  ])('%o lies %s', (sector, where) => expect(positionName(sector)).toBe(where));
});
