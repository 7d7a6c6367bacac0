import { describe, expect, test } from 'vitest';
import { outlineOf, project } from './views.ts';

describe('projections', () => {
  test('the front is seen with the left on the viewer’s right, the left side with its front on the left', () => {
    expect(project('front', [2, 0.5, 1])).toEqual([0.5, 1]);
    expect(project('rear', [-2, 0.5, 1])).toEqual([-0.5, 1]);
    expect(project('left', [2, 0.5, 1])).toEqual([-2, 1]);
    expect(project('right', [2, 0.5, 1])).toEqual([2, 1]);
    expect(project('plan', [2, 0.5, 1])).toEqual([2, 0.5]);
  });

  test('an outline keeps the outer points, counter-clockwise', () => {
    const outline = outlineOf([
      [0, 0],
      [2, 0],
      [1, 0.5],
      [2, 1],
      [0, 1],
      [1, 0],
    ]);
    expect(outline).toEqual([
      [0, 0],
      [2, 0],
      [2, 1],
      [0, 1],
    ]);
  });
});
