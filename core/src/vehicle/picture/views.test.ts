import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { chordM, entryM } from '../../geometry/ray.ts';
import { box } from '../../geometry/solid.ts';
import { dot, type Vec3 } from '../../geometry/vec.ts';
import { BODY_TYPES } from '../bodies/bodyTypes.ts';
import { OPTIONS } from '../options/options.ts';
import { skinDepthM } from './drawn.ts';
import { defaultSpec } from '../spec.ts';
import type { View } from '../types.ts';
import { vehicleOf } from '../vehicle.ts';
import { project, toViewer, unproject } from './views.ts';

const VIEWS: readonly View[] = ['plan', 'left', 'right', 'front', 'rear'];
const coordinate = fc.double({ min: -4, max: 4, noNaN: true });

describe('views', () => {
  test('a point comes back from its place on a view and its depth', () => {
    fc.assert(
      fc.property(fc.constantFrom(...VIEWS), fc.tuple(coordinate, coordinate, coordinate), (view, p) => {
        const back = unproject(view, project(view, p), dot(toViewer[view], p));
        back.forEach((v, i) => expect(v).toBeCloseTo(p[i] ?? NaN, 12));
      }),
      { numRuns: 200, seed: 47 },
    );
  });

  test('a ray enters a box where its chord begins; it misses where there is none', () => {
    const cube = box('c', [-1, -1, -1], [1, 1, 1]);
    expect(entryM(cube, [-3, 0, 0], [1, 0, 0])).toBeCloseTo(2, 5);
    expect(entryM(cube, [-3, 2, 0], [1, 0, 0])).toBe(Infinity);
    expect(entryM(cube, [0, 0, 0], [1, 0, 0])).toBe(0);
    expect(chordM(cube, [-3, 2, 0], [1, 0, 0])).toBe(0);
  });

  test('the skin of any body lies within its measures, and mirrored on both sides', () => {
    for (const body of BODY_TYPES) {
      const vehicle = vehicleOf(defaultSpec(body.id));
      for (const [a, b] of [
        [0, 0.7],
        [0.8, 0.9],
        [-1.2, 0.8],
      ] as const) {
        const left = skinDepthM(vehicle, 'left', [a, b]);
        expect(left, body.id).toBeCloseTo(skinDepthM(vehicle, 'right', [-a, b]), 6);
        expect(left).toBeLessThanOrEqual(vehicle.widthM / 2 + 0.35);
        expect(skinDepthM(vehicle, 'plan', [a, 0])).toBeLessThanOrEqual(vehicle.heightM + 0.01);
      }
    }
  });
});

describe('options on every body that takes them', () => {
  const fitted = (bodyType: string, id: string) => vehicleOf({ ...defaultSpec(bodyType), options: [id] });
  const reach = (points: readonly Vec3[], axis: 0 | 1 | 2): [number, number] => {
    const values = points.map((p) => p[axis]);
    return [Math.min(...values), Math.max(...values)];
  };

  test.each(OPTIONS.map((o) => [o.id, o] as const))('%s', (id, option) => {
    const bodies = BODY_TYPES.filter((b) => b.options.includes(id));
    expect(bodies.length, 'some body takes it').toBeGreaterThan(0);
    expect(option.what.length).toBeGreaterThan(10);
    for (const body of bodies) {
      const plain = vehicleOf(defaultSpec(body.id));
      const vehicle = fitted(body.id, id);
      const known = new Set([...plain.solids, ...plain.zones].map((item) => item.id));
      const solids = vehicle.solids.filter((s) => !known.has(s.id));
      const zones = vehicle.zones.filter((z) => !known.has(z.id));
      expect(solids.length + zones.length, body.id).toBeGreaterThan(0);
      const points = solids.flatMap((s) => s.vertices);
      if (points.length > 0) {
        // Nothing hangs in the air far from the vehicle or below the road.
        expect(reach(points, 0)[1]).toBeLessThan(vehicle.lengthM / 2 + 1.2);
        expect(reach(points, 0)[0]).toBeGreaterThan(-vehicle.lengthM / 2 - 1.8);
        expect(reach(points, 2)[0]).toBeGreaterThanOrEqual(-0.01);
        const [right, left] = reach(points, 1);
        expect(Math.abs(left + right), `${body.id} is symmetric`).toBeLessThan(0.6);
      }
      for (const zone of zones) {
        expect(zone.behind.length, zone.id).toBeGreaterThan(5);
        expect(zone.fixings.length).toBeGreaterThan(0);
      }
    }
  });

  test('what moves is listed with words for every stop', () => {
    for (const body of BODY_TYPES) {
      const vehicle = vehicleOf({ ...defaultSpec(body.id), options: [...body.options] });
      for (const part of vehicle.parts) {
        expect(part.stops.length).toBeGreaterThanOrEqual(1);
        expect(part.stops[0].id).toBe(part.id);
        for (const stop of part.stops) {
          expect(stop.name.length, `${body.id} ${stop.id}`).toBeGreaterThan(2);
          const moves = stop.motion.angleDeg !== 0 || Math.hypot(...stop.motion.by) > 0;
          expect(moves, `${body.id} ${stop.id}`).toBe(true);
        }
      }
    }
  });
});
