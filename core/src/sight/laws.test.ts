import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { layOut, occluderAt } from '../coverage/occlusion.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { directionOf } from '../geometry/direction.ts';
import { aimFrame, anglesInFrame } from '../geometry/frame.ts';
import { length, scale, sub, type Vec3 } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { stateWith } from '../state/state.ts';
import { stopsOf } from '../vehicle/vehicle.ts';
import { Approaches } from './approach.ts';
import { planeLx } from './ground.ts';
import type { Source } from './source.ts';
import { solidsIn } from './stations.ts';
import { usualApproaches } from './usualApproaches.ts';

describe('energy', () => {
  const frame = aimFrame(directionOf(30, 10), directionOf(30, 100));
  const beam = { h50Deg: 25, v50Deg: 12, power: 2 };
  const lamp: Source = {
    centre: [0.4, -0.3, 0.2],
    cdToward: (d) => {
      const { hDeg, vDeg } = anglesInFrame(frame, d);
      return 1000 * relativeIntensity(beam, hDeg, vDeg);
    },
  };

  /** Lumens: the intensity over the whole sphere. */
  const sphere = (): number => {
    const STEP = 0.5;
    let sum = 0;
    for (let e = -90 + STEP / 2; e < 90; e += STEP)
      for (let b = STEP / 2; b < 360; b += STEP)
        sum += lamp.cdToward(directionOf(b, e), Infinity) * Math.cos((e * Math.PI) / 180);
    return sum * ((STEP * Math.PI) / 180) ** 2;
  };

  /** Lumens: the illuminance over the six walls of a room, from within. */
  const room = (half: number): number => {
    const STEP = half / 100;
    let sum = 0;
    for (const axis of [0, 1, 2])
      for (const side of [-1, 1])
        for (let u = -half + STEP / 2; u < half; u += STEP)
          for (let v = -half + STEP / 2; v < half; v += STEP) {
            const at = [0, 0, 0];
            const inward = [0, 0, 0];
            at[axis] = side * half;
            at[(axis + 1) % 3] = u;
            at[(axis + 2) % 3] = v;
            inward[axis] = -side;
            const [x = 0, y = 0, z = 0] = at;
            const [i = 0, j = 0, k = 0] = inward;
            sum += planeLx([lamp], [x, y, z], [i, j, k]);
          }
    return sum * STEP ** 2;
  };

  test('what leaves a lamp arrives on the walls of any room around it', () => {
    const sent = sphere();
    expect(sent).toBeGreaterThan(100);
    for (const half of [1, 3]) expect(room(half) / sent).toBeCloseTo(1, 3);
  });
});

describe('reciprocity', () => {
  test('what passes from one point to another passes the other way, past body, glass and open doors', () => {
    const { vehicle } = lookupOf(demoBuild('ks-12'));
    const point = fc.tuple(
      fc.double({ min: -4, max: 4, noNaN: true }),
      fc.double({ min: -2, max: 2, noNaN: true }),
      fc.double({ min: 0, max: 2.5, noNaN: true }),
    );
    /** About the driver's eye, and about those of people outside. */
    const near = fc.record({
      x: fc.double({ min: -0.05, max: 0.05, noNaN: true }),
      out: fc.tuple(
        fc.double({ min: -4, max: 4, noNaN: true }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 1.1, max: 1.6, noNaN: true }),
      ),
    });
    const ends = fc.oneof(
      fc.tuple(point, point),
      near.map(({ x, out }): [Vec3, Vec3] => [[x, 0.41, 1.29], out]),
    );
    const poses = [[], ...stopsOf(vehicle).map(({ id }) => [id])].map((open) =>
      layOut(solidsIn(vehicle, open)),
    );
    let hidden = 0;
    let dimmed = 0;
    fc.assert(
      fc.property(ends, fc.constantFrom(...poses), ([a, b], obstacles) => {
        const way = sub(b, a);
        const far = length(way);
        fc.pre(far > 0.01);
        const there = occluderAt(obstacles, a)(scale(way, 1 / far), far);
        const back = occluderAt(obstacles, b)(scale(way, -1 / far), far);
        if (there === 0) hidden += 1;
        else if (there < 1) dimmed += 1;
        expect(back).toBeCloseTo(there, 12);
      }),
      { numRuns: 2000, seed: 12 },
    );
    expect(hidden).toBeGreaterThan(100);
    expect(dimmed).toBeGreaterThan(20);
  });
});

describe('monotony', () => {
  test('worse air, a brighter background and eyes that miss a colour never see farther; more light never less far', () => {
    const build = demoBuild('tunnel-pumper-3');
    const one = new Approaches(build, stateWith({ on: ['stage-1'] }));
    const WORSE = ['clear', 'rain', 'haze', 'fog'] as const;
    for (const approach of usualApproaches('other').filter(({ weather }) => weather === 'clear')) {
      const seen = WORSE.map((weather) => one.result({ ...approach, weather }).sightings[0].seenM);
      expect(seen).toEqual(seen.toSorted((a, b) => b - a));
      const faint = one.result({ ...approach, weather: 'haze', noticing: 20 }).sightings[0].seenM;
      expect(faint).toBeLessThanOrEqual(seen[2] ?? NaN);
    }
    const by = (around: 'day' | 'dusk') =>
      one.result({ ...(usualApproaches('other')[0] ?? fail()), weather: 'haze', around }).sightings[0].seenM;
    expect(by('dusk')).toBeGreaterThan(by('day'));
  });
});

function fail(): never {
  throw new Error('there are usual approaches');
}
