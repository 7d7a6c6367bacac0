import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { gapsOf } from '../coverage/gaps.ts';
import { directionMap, type MapQuantity } from '../coverage/map.ts';
import { litChannels, ringOf } from '../coverage/ring.ts';
import { bearingsIn } from '../coverage/sectors.ts';
import type { Build } from '../design/schema.ts';
import { stateWith } from '../state/state.ts';
import { runToCompletion } from '../words/inSteps.ts';
import { floorsIn } from './floors.ts';
import { mapGaps } from './mapGaps.ts';

const ks12 = demoBuild('ks-12');
const stage2 = stateWith({ on: ['stage-2'] });
const OPTIONS = { colour: null, level: 'any', upperAboveM: 1.5 } as const;
const mapOf = (build: Build, quantity: MapQuantity = 'power') =>
  runToCompletion(directionMap(build, stage2, OPTIONS, quantity));
const found = (build: Build) => mapGaps(build, stage2, 'any', mapOf(build));
const floor = (elevationsDeg: number[], minCdsPerMin: number): Build => ({
  ...ks12,
  rulePacks: [
    packOf({
      kind: 'power-floor',
      ...common,
      faces: ['rear'],
      level: 'any',
      ambient: 'day',
      minCdsPerMin,
      poses: ['shut'],
      lamps: 'warning',
      elevationsDeg,
    }),
  ],
});

describe('gaps in the map', () => {
  test('seen level they are those of the ring', () => {
    const build = floor([0], 1_000_000);
    const { elevationsDeg, values } = mapOf(build);
    const least = floorsIn(build, stage2, 'any');
    const ring = ringOf(litChannels(build, stage2, { ...OPTIONS, elevationDeg: 0 }));
    const gaps = found(build);
    expect(gaps.length).toBeGreaterThan(0);
    expect(gaps.map(({ fromDeg, toDeg }) => ({ fromDeg, toDeg }))).toEqual(gapsOf(ring, least, null));
    // Each run has the level row in it, too little light in each of its cells, and enough beyond its ends.
    const level = elevationsDeg.indexOf(0);
    for (const gap of gaps) {
      expect(new Set(gap.runs.map(({ bearing }) => bearing))).toEqual(new Set(bearingsIn(gap)));
      for (const { bearing, fromRow, toRow } of gap.runs) {
        const isShort = (row: number): boolean => (values[row * 360 + bearing] ?? 0) < (least[bearing] ?? 0);
        expect(fromRow <= level && level <= toRow).toBe(true);
        for (let row = fromRow; row <= toRow; row++) expect(isShort(row)).toBe(true);
        if (fromRow > 0) expect(isShort(fromRow - 1)).toBe(false);
        if (toRow < elevationsDeg.length - 1) expect(isShort(toRow + 1)).toBe(false);
      }
    }
  });
  test('a rule that looks from above alone is missed there, not level', () => {
    const { elevationsDeg, values } = mapOf(ks12);
    // Straight behind: more than is asked seen level, less from 24° up.
    const level = values[elevationsDeg.indexOf(0) * 360 + 180] ?? 0;
    const above = values[elevationsDeg.indexOf(24) * 360 + 180] ?? 0;
    expect(above).toBeLessThan(level / 4);
    const asked = level / 2;
    const isBehind = ({ runs }: { runs: readonly { bearing: number }[] }): boolean =>
      runs.some(({ bearing }) => bearing === 180);
    expect(found(floor([0], asked)).some(isBehind)).toBe(false);
    const [gap] = found(floor([23, 24, 25], asked)).filter(isBehind);
    const run = gap?.runs.find(({ bearing }) => bearing === 180);
    expect(run?.fromRow).toBeGreaterThan(elevationsDeg.indexOf(0));
    expect(run?.fromRow).toBeLessThanOrEqual(elevationsDeg.indexOf(24));
  });
  test('too little light is no gap where nobody looks from', () => {
    const { elevationsDeg, values } = mapOf(ks12);
    const power = (deg: number): number => values[elevationsDeg.indexOf(deg) * 360 + 180] ?? 0;
    const behind = (looks: number, asked: number) =>
      found(floor([looks], asked)).flatMap(({ runs }) => runs.filter(({ bearing }) => bearing === 180));
    // Between two rows both stand for it.
    const step = (elevationsDeg[1] ?? 0) - (elevationsDeg[0] ?? 0);
    expect(step).toBeGreaterThan(0);
    const [lower, upper] = [elevationsDeg.indexOf(0), elevationsDeg.indexOf(0) + 1];
    const asked = (power(0) + power(elevationsDeg[upper] ?? 0)) / 2;
    expect(power(elevationsDeg[upper] ?? 0)).toBeLessThan(power(0));
    expect(behind(0, asked)).toEqual([]);
    const [run] = behind(elevationsDeg[upper] ?? 0, asked);
    expect(run?.fromRow).toBe(upper);
    expect(behind(step / 2, asked).map(({ fromRow }) => fromRow)).toEqual([lower + 1]);
  });
  test('no floor, or a map of something else: no gap', () => {
    expect(found({ ...ks12, rulePacks: [] })).toEqual([]);
    expect(mapGaps(ks12, stage2, 'any', mapOf(ks12, 'peak'))).toEqual([]);
  });
});
