import { describe, expect, test } from 'vitest';
import { newBuild } from '@flarik/core/design/create';
import { addPartner, addPlacement } from '@flarik/core/arrange/lamps';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { beamsOf, gripOf, panToward, turned, wedgePath } from './directions';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

const lookup = lookupOf(build);

const { vehicle } = lookup;

const shut = new Set<string>();

const lamp = (id: string) => {
  const found = build.placements.find((p) => p.id === id);
  if (found === undefined) throw new Error(`KS-12 has no ${id}`);
  return found;
};

describe('directions on the plan', () => {
  test('a wedge begins in the middle and reaches beyond the vehicle', () => {
    const points = wedgePath(vehicle, { fromDeg: 170, toDeg: 190 })
      .slice(1, -1)
      .split('L')
      .map((p) => p.split(',').map(Number));
    expect(points[0]).toEqual([0, 0]);
    expect(points).toHaveLength(22);
    for (const [x = 0] of points.slice(1)) expect(x).toBeCloseTo(-(vehicle.lengthM / 2 + 0.36), 6);
  });

  test('a beam for each module; a beacon’s is round', () => {
    expect(beamsOf(lookup, [lamp('bar')], shut)).toHaveLength(16);
    const beacon = addPlacement(newBuild(build.id, 'x', 'police', []), {
      id: 'b',
      fixtureId: 'beacon-low',
      zoneId: 'roof',
      uM: 0,
      vM: 0,
    });
    expect(beamsOf(lookup, addPartner(beacon, 'b', 'c').placements, shut)[0]?.path).toMatch(/a1\.3,1\.3/);
  });
});

describe('aiming by the beam', () => {
  test('its end lies where the lamp aims; toward a point is so many degrees further', () => {
    const grip = gripOf(lookup, lamp('wing'), shut);
    if (grip === null) throw new Error('a wing lamp has a beam');
    // The left wing looks to the left: bearing 270, y up on the plan.
    expect(grip.at[1] - grip.from[1]).toBeCloseTo(1.3, 6);
    expect(panToward(grip, [grip.from[0] + 1, grip.from[1] + 1], 5)).toBe(45);
    expect(panToward(grip, [grip.from[0] - 0.05, grip.from[1] + 1], 5)).toBe(-5);
    expect(panToward(grip, [grip.from[0] - 0.05, grip.from[1] + 1], 1)).toBe(-3);
  });
  test('pans stay within half a turn', () => {
    expect([turned(175, 10), turned(-175, -10), turned(0, 360), turned(10, 5)]).toEqual([-175, 175, 0, 15]);
  });
});
