import { describe, expect, test } from 'vitest';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { arrange, VIEWS } from './arrangement';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

const lookup = lookupOf(build);

const { vehicle } = lookup;

const shut = new Set<string>();

describe('the arrangement of the sheet', () => {
  const { frames, width, height } = arrange(vehicle, shut);

  test('holds five views that do not lie on each other', () => {
    for (const view of VIEWS) {
      const f = frames[view];
      expect(f.left >= 0 && f.top >= 0 && f.left + f.width <= width && f.top + f.height <= height, view).toBe(
        true,
      );
      for (const other of VIEWS.filter((o) => o !== view)) {
        const g = frames[other];
        const apart =
          f.left + f.width <= g.left ||
          g.left + g.width <= f.left ||
          f.top + f.height <= g.top ||
          g.top + g.height <= f.top;
        expect(apart, `${view} and ${other}`).toBe(true);
      }
    }
  });

  test('plan and right side share their stations; the wheels of all elevations stand on their ground', () => {
    expect(frames.plan.x).toBe(frames.right.x);
    for (const view of ['left', 'right', 'front', 'rear'] as const)
      expect(frames[view].y).toBeCloseTo(frames[view].top + frames[view].height, 9);
  });
});
