import fc from 'fast-check';
import { expect, test } from 'vitest';
import { DEMO_BUILDS, demoBuild } from '../../test/reference/demo.ts';
import { stagesOf } from '../design/controls.ts';
import { stateWith } from '../state/state.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { aheadOf } from './ahead.ts';
import { lightsIn } from './source.ts';
import { driverOf, solidsIn } from './stations.ts';
import { veilOf } from './veil.ts';

/** Poses of all builds in which some part was left out. */
let fewer = 0;

test.each(DEMO_BUILDS)(
  '%s: whatever stands open, the fog ahead is as bright as with all parts looked at',
  (name) => {
    const build = demoBuild(name);
    const vehicle = vehicleOf(build.vehicle);
    const driver = driverOf(vehicle, build.traffic);
    const highest = stagesOf(build).at(-1);
    if (driver === null || highest === undefined) throw new Error('no driver, or no stage');
    fc.assert(
      fc.property(fc.tuple(...vehicle.parts.map((part) => fc.constantFrom(null, ...part.stops))), (stops) => {
        const open = stops.flatMap((stop) => stop?.id ?? []);
        const state = stateWith({ on: [highest.id], open, ambient: 'night' });
        const { lights, solids } = aheadOf(build, state, driver.eye);
        if (solids !== solidsIn(vehicle, open)) fewer++;
        const mine = veilOf(lights, solids, driver.eye, 80);
        const plain = veilOf(lightsIn(build, state), solidsIn(vehicle, open), driver.eye, 80);
        expect(mine.highest).toBeCloseTo(plain.highest, 9);
        expect(mine.mean).toBeCloseTo(plain.mean, 9);
      }),
      { numRuns: 6, seed: 5 },
    );
  },
);

test('some poses were told by fewer parts', () => {
  expect(fewer).toBeGreaterThan(10);
});
