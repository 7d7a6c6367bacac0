import { describe, expect, test } from 'vitest';
import { emptyBuild } from '../../test/reference/places.ts';
import { thresholdLx } from '../coverage/range.ts';
import type { Approach } from '../design/approach.ts';
import type { Build } from '../design/schema.ts';
import type { Reflector } from '../vehicle/spec.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { reflectedLx, reflectiveFromM } from './reflective.ts';
import { outlineOf } from './stations.ts';
import { overCrestM } from './stopping.ts';
import { usualApproaches } from './usualApproaches.ts';

const empty = emptyBuild();
const { rearX, frontX } = outlineOf(vehicleOf(empty.vehicle));
const chevrons: Reflector = {
  id: 'chevrons',
  name: 'Chevrons',
  face: 'rear',
  centre: [rearX - 0.1, 0, 0.65],
  widthM: 2,
  heightM: 0.5,
  colour: 'red',
  cdPerLxM2: 200,
};
const withAreas = (...reflectors: Reflector[]): Build => ({
  ...empty,
  vehicle: { ...empty.vehicle, reflectors },
});
const usual = (id: string): Approach => {
  const found = usualApproaches('other').find((one) => one.id === id);
  if (found === undefined) throw new Error(`no approach ${id}`);
  return found;
};
const behind = usual('behind-clear-night');
const lx = (build: Build, patch: Partial<Approach> = {}, distanceM = 100, cd = 1000): number =>
  reflectedLx(build, [], { ...behind, ...patch }, distanceM, cd);

describe('reflective areas, all lamps off', () => {
  test('worked: I = R_A · E · A, the air on both ways', () => {
    // One square metre of 200 cd/lx/m², lit and looked at along its normal from 100 m behind the origin.
    const r = 100 + (rearX - 0.1) - 0.02;
    const back = Math.hypot(r, 1.08 - 0.65);
    const one = (opticalRangeM: number) => {
      const e = (1000 * 0.05 ** (r / opticalRangeM)) / r ** 2;
      return (200 * e * 1 * 0.05 ** (back / opticalRangeM)) / back ** 2;
    };
    expect(lx(withAreas(chevrons))).toBeCloseTo(one(20_000), 12);
    expect(lx(withAreas(chevrons), { weather: 'haze' })).toBeCloseTo(one(1000), 12);
    expect(lx(withAreas(chevrons), {}, 100, 2000)).toBeCloseTo(2 * one(20_000), 12);
    expect(lx(withAreas(chevrons, { ...chevrons, id: 'more', cdPerLxM2: 100 }))).toBeCloseTo(
      1.5 * one(20_000),
      12,
    );
  });

  test('only what faces whoever comes, up to 30° off', () => {
    for (const face of ['front', 'left', 'right', 'top', 'under'] as const)
      expect(lx(withAreas({ ...chevrons, face }))).toBe(0);
    expect(lx(withAreas(chevrons), { bearingDeg: 180 - 28 })).toBeGreaterThan(0);
    expect(lx(withAreas(chevrons), { bearingDeg: 180 - 32 })).toBe(0);
    const ahead = {
      ...chevrons,
      face: 'front' as const,
      centre: [frontX + 0.1, 0, 0.65] as [number, number, number],
    };
    expect(lx(withAreas(ahead), { bearingDeg: 0 })).toBeGreaterThan(0);
    expect(lx(withAreas(ahead))).toBe(0);
    // The body stands between.
    expect(lx(withAreas({ ...chevrons, centre: [frontX + 0.1, 0, 0.65] }))).toBe(0);
  });

  test('only the colour and the height that is asked for, and none behind a crest', () => {
    const build = withAreas(chevrons);
    expect(lx(build, { colour: 'red' })).toBeGreaterThan(0);
    expect(lx(build, { colour: 'amber' })).toBe(0);
    for (const colour of ['yellow', 'orange'] as const)
      expect(lx(withAreas({ ...chevrons, colour }), { colour: 'amber' })).toBeGreaterThan(0);
    expect(lx(build, { level: 'upper' })).toBe(0);
    expect(lx(build, { level: 'lower' })).toBeGreaterThan(0);
    expect(lx(withAreas({ ...chevrons, centre: [rearX - 0.1, 0, 1.6] }), { level: 'upper' })).toBeGreaterThan(
      0,
    );
    const crest = { lengthM: 50, changePercent: 12 };
    const farM = overCrestM(50, 12, 0.65, 0.65);
    expect(lx(build, { crest }, farM - 0.1)).toBeGreaterThan(0);
    expect(lx(build, { crest }, farM + 0.1)).toBe(0);
  });

  test('seen from where the light is just what is needed, farther with better sheeting, not at all without', () => {
    const build = withAreas(chevrons);
    const from = reflectiveFromM(build, [], behind);
    expect(from).toBeGreaterThan(100);
    const needed = thresholdLx(1);
    expect(lx(build, {}, from)).toBeGreaterThanOrEqual(needed);
    expect(lx(build, {}, from + 0.2)).toBeLessThan(needed);
    expect(reflectiveFromM(withAreas({ ...chevrons, cdPerLxM2: 400 }), [], behind)).toBeGreaterThan(from);
    expect(reflectiveFromM(build, [], { ...behind, noticing: 20 })).toBeLessThan(from);
    expect(reflectiveFromM(build, [], usual('behind-fog-night'))).toBeLessThan(from);
    expect(reflectiveFromM(withAreas(), [], behind)).toBe(0);
  });
});
