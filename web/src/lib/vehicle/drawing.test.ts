import { readBuild } from '@flarik/core/rules/document';
import { describe, expect, test } from 'vitest';
import { newBuild } from '@flarik/core/design/create';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { zoneOf } from '@flarik/core/vehicle/vehicle';
import { addDrawn, type Drawing } from './drawing';
import { VIEWS } from '../sheet/arrangement';

const empty = newBuild('77777777-7777-4777-8777-777777777777', 'Test', 'police', []);

const { vehicle } = lookupOf(empty);

describe('what is drawn on a view', () => {
  const rects = {
    left: { view: 'left', from: [-0.4, 0.6], to: [0, 0.8] },
    right: { view: 'right', from: [-0.4, 0.6], to: [0, 0.8] },
    front: { view: 'front', from: [0.2, 0.5], to: [0.5, 0.6] },
    rear: { view: 'rear', from: [0.2, 0.5], to: [0.5, 0.6] },
    plan: { view: 'plan', from: [-0.5, 0.2], to: [0.3, 0.5] },
  } as const;
  const WHATS: readonly Drawing[] = ['zone', 'solid', 'keep-out'];

  test('becomes an own part of each kind on each view, and the build reads back', () => {
    for (const view of VIEWS)
      for (const what of WHATS) {
        const built = addDrawn(empty, vehicle, what, rects[view], false);
        expect(readBuild(built), `${what} ${view}`).toEqual(built);
        const { zones, solids, keepOuts } = built.vehicle;
        expect([zones.length, solids.length, keepOuts.length].toSorted((a, b) => a - b)).toEqual([0, 0, 1]);
      }
  });

  test('with its mirror image: two that lie on either side, named by their side', () => {
    for (const view of VIEWS) {
      const [one, two] = addDrawn(empty, vehicle, 'zone', rects[view], true).vehicle.zones;
      if (one === undefined || two === undefined) throw new Error(view);
      expect(one.centre[1]).toBeCloseTo(-two.centre[1], 6);
      const left = one.centre[1] > 0 ? one : two;
      expect(left.name, view).toMatch(/left$/);
      expect([one, two].find((z) => z !== left)?.name).toMatch(/right$/);
    }
  });

  test('a mirrored pair of boxes is as large, and both hide light', () => {
    const built = addDrawn(empty, vehicle, 'solid', rects.left, true);
    const [one, two] = built.vehicle.solids;
    if (one?.kind !== 'box' || two?.kind !== 'box') throw new Error('two boxes');
    for (const axis of [0, 1, 2] as const)
      expect(one.to[axis] - one.from[axis]).toBeCloseTo(two.to[axis] - two.from[axis], 6);
    const ids = new Set(lookupOf(built).vehicle.solids.map((s) => s.id));
    expect(ids.has(one.id) && ids.has(two.id)).toBe(true);
  });

  test('a drawn zone is one among the vehicle’s own', () => {
    const built = addDrawn(empty, vehicle, 'zone', rects.rear, false);
    const [zone] = built.vehicle.zones;
    expect(zoneOf(lookupOf(built).vehicle, zone?.id ?? '').face).toBe('rear');
  });
});
