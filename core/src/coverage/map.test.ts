import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { timelinesOf } from '../timing/timeline.ts';
import { highestTogether } from '../timing/worst.ts';
import { stateWith } from '../state/state.ts';
import { BEARINGS } from './field.ts';
import { directionMap, MAP_FROM_DEG, MAP_TO_DEG, type MapQuantity } from './map.ts';
import { lightToward, litChannels, powerRing, ringOf } from './ring.ts';

const build = demoBuild('ks-13');
const state = stateWith({ on: ['stage-2'] });
const OPTIONS = { colour: null, level: 'any', upperAboveM: 1.5 } as const;
const STEP_DEG = 30;

/** The map, and how far it said to have come. */
function mapOf(quantity: MapQuantity, stepDeg = STEP_DEG) {
  const steps = directionMap(build, state, OPTIONS, quantity, stepDeg);
  const told: number[] = [];
  for (;;) {
    const next = steps.next();
    if (next.done) return { ...next.value, told };
    told.push(next.value);
  }
}

test.each<MapQuantity>(['power', 'effective', 'peak'])(
  '%s: each row is what goes out at its elevation',
  (quantity) => {
    const { elevationsDeg, values } = mapOf(quantity);
    expect(elevationsDeg).toEqual([-30, 0, 30, 60]);
    expect(elevationsDeg.at(0)).toBe(MAP_FROM_DEG);
    expect(elevationsDeg.at(-1)).toBe(MAP_TO_DEG);
    expect(values).toHaveLength(4 * BEARINGS);
    for (const [row, elevationDeg] of elevationsDeg.entries()) {
      const lit = litChannels(build, state, { ...OPTIONS, elevationDeg });
      const plain = {
        power: () => powerRing(lit),
        effective: () => ringOf(lit).effectiveCd,
        // All channels together, at the instant at which they are highest.
        peak: () => {
          const timelines = timelinesOf(lit.map((one) => one.drive));
          return Float64Array.from(
            { length: BEARINGS },
            (_, b) => highestTogether(lightToward(lit, timelines, b)).value,
          );
        },
      }[quantity]();
      for (let b = 0; b < BEARINGS; b++) expect(values[row * BEARINGS + b]).toBeCloseTo(plain[b] ?? NaN, 6);
    }
    expect(Math.max(...values)).toBeGreaterThan(1000);
  },
);

test('it says how far it has come: ever farther, and to the end', () => {
  const { told } = mapOf('power');
  expect(told.length).toBeGreaterThan(4);
  expect(told[0]).toBeGreaterThan(0);
  for (const [i, share] of told.entries()) if (i > 0) expect(share).toBeGreaterThan(told[i - 1] ?? 1);
  expect(told.at(-1)).toBe(1);
});
