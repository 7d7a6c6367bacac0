import { describe, expect, test } from 'vitest';
import { litChannels, ringOf } from './ring.ts';
import { gapsOf, whereabouts } from './gaps.ts';
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

  test('of one colour are where it is not noticed, whatever the floor', () => {
    const amber = { ...options, colour: 'amber' } as const;
    const lit = litChannels(build, { on: ['stage-2'], open: [], ambient: 'day' }, amber);
    const gaps = gapsOf(ringOf(lit), floor(0), 'amber');
    expect(gaps.some((g) => whereabouts(g) === 'front')).toBe(true);
  });

  test.each([
    [{ fromDeg: 350, toDeg: 10 }, 'front'],
    [{ fromDeg: 152, toDeg: 171 }, 'rear'],
    [{ fromDeg: 100, toDeg: 150 }, 'rear right'],
    [{ fromDeg: 260, toDeg: 280 }, 'left'],
    [{ fromDeg: 0, toDeg: 359 }, 'all round'],
  ])('%o lies %s', (sector, where) => expect(whereabouts(sector)).toBe(where));
});
