import { describe, expect, test } from 'vitest';
import { parseInput } from '../words/errors.ts';
import { addCorner, asRectangle, byCorners, cornersIn, moveCorner, removeCorner } from './shapeEdits.ts';
import { WorkShape } from './site.ts';

const bed: WorkShape = { kind: 'rectangle', alongM: 2, acrossM: 1 };
const read = (shape: WorkShape): WorkShape => parseInput(WorkShape, shape);

describe('the outline of a work place', () => {
  test('a rectangle by its corners is the same figure, and back again', () => {
    const corners = byCorners(bed);
    expect(cornersIn(corners)).toEqual(cornersIn(bed));
    expect(byCorners(corners)).toBe(corners);
    expect(asRectangle(corners)).toEqual(bed);
    expect(asRectangle(bed)).toBe(bed);
    expect(read(corners)).toEqual(corners);
  });

  test('a point gets a size before it has corners', () => {
    const point: WorkShape = { kind: 'rectangle', alongM: 0, acrossM: 0 };
    expect(asRectangle(byCorners(point))).toEqual({ kind: 'rectangle', alongM: 1, acrossM: 1 });
  });

  test('a corner is added in the middle of an edge, moved, and taken away again', () => {
    const five = addCorner(bed, 3);
    expect(cornersIn(five)).toHaveLength(5);
    expect(cornersIn(five)[4]).toEqual({ alongM: -1, acrossM: 0 });
    const moved = moveCorner(five, 4, { alongM: -0.5 });
    expect(cornersIn(moved)[4]).toEqual({ alongM: -0.5, acrossM: 0 });
    expect(read(moved)).toEqual(moved);
    expect(removeCorner(moved, 4)).toEqual(byCorners(bed));
    expect(addCorner(bed, 9)).toBe(bed);
  });

  test.each([
    ['two corners', removeCorner(removeCorner(bed, 0), 0), /at least 3 corners/],
    [
      'edges that cross',
      moveCorner(moveCorner(bed, 1, { acrossM: 0.5 }), 2, { acrossM: -0.5 }),
      /must not cross/,
    ],
    ['no area', moveCorner(moveCorner(bed, 2, { acrossM: -0.5 }), 3, { acrossM: -0.5 }), /enclose an area/],
    ['too far', moveCorner(bed, 1, { alongM: 41 }), /alongM/],
    ['too many', Array.from({ length: 21 }).reduce<WorkShape>((s) => addCorner(s, 0), bed), /at most 24/],
  ])('%s: refused', (_, shape, why) => {
    expect(() => read(shape)).toThrow(why);
  });
});
