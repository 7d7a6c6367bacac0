import { describe, expect, test } from 'vitest';
import { directionOf } from '../geometry/direction.ts';
import { Mesh } from '../geometry/mesh.ts';
import { box } from '../geometry/solid.ts';
import { layOut, occluderAt } from './occlusion.ts';

/** An upright triangle that stands 2 m ahead of the origin, 2 m wide and as high. */
const sail = new Mesh([2, -1, 0, 2, 1, 0, 2, 0, 2], [0, 1, 2]);
const pane = box('pane', [1, -5, -5], [1.01, 5, 5], { transmission: 0.7 });
const ahead = directionOf(0, 10);

describe('what hides light', () => {
  test('an imported body hides as its triangles stand, and only as far as they do', () => {
    const past = occluderAt(layOut([], sail), [0, 0, 0]);
    expect(past(ahead)).toBe(0);
    expect(past(directionOf(0, -10))).toBe(1);
    expect(past(directionOf(180, 10))).toBe(1);
    expect([past(ahead, 1.9), past(ahead, 2.2)]).toEqual([1, 0]);
    expect(occluderAt(layOut([]), [0, 0, 0])(ahead)).toBe(1);
  });

  test('glass before it takes its share where the body does not stand, and nothing more where it does', () => {
    const past = occluderAt(layOut([pane], sail), [0, 0, 0]);
    expect([past(ahead), past(directionOf(0, -10)), past(ahead, 1.5), past(ahead, 0.9)]).toEqual([
      0, 0.7, 0.7, 1,
    ]);
  });

  test('what lets all light pass is left out', () => {
    expect(layOut([{ ...pane, transmission: 1 }]).transmissions).toHaveLength(0);
  });
});
