import type { Corner, WorkShape } from './site.ts';

/** The side of a figure made of a point, m. */
const USUAL_M = 1;

/** The corners of a shape, in turn, from its middle. */
export function cornersIn(shape: WorkShape): readonly Corner[] {
  if (shape.kind === 'corners') return shape.corners;
  const [a, c] = [shape.alongM / 2, shape.acrossM / 2];
  return [
    { alongM: -a, acrossM: -c },
    { alongM: a, acrossM: -c },
    { alongM: a, acrossM: c },
    { alongM: -a, acrossM: c },
  ];
}

/** A shape by its corners; what has no size one way gets some. */
export function byCorners(shape: WorkShape): WorkShape {
  if (shape.kind === 'corners') return shape;
  const sized = { ...shape, alongM: shape.alongM || USUAL_M, acrossM: shape.acrossM || USUAL_M };
  return { kind: 'corners', corners: [...cornersIn(sized)] };
}

/** The rectangle that a shape fits in, about its middle as it was put. */
export function asRectangle(shape: WorkShape): WorkShape {
  if (shape.kind === 'rectangle') return shape;
  const twice = (of: (corner: Corner) => number): number =>
    2 * Math.max(...shape.corners.map((corner) => Math.abs(of(corner))));
  return {
    kind: 'rectangle',
    alongM: Math.min(
      80,
      twice(({ alongM }) => alongM),
    ),
    acrossM: Math.min(
      60,
      twice(({ acrossM }) => acrossM),
    ),
  };
}

/** A shape with one corner put elsewhere. */
export const moveCorner = (shape: WorkShape, at: number, to: Partial<Corner>): WorkShape => ({
  kind: 'corners',
  corners: cornersIn(shape).map((corner, i) => (i === at ? { ...corner, ...to } : corner)),
});

/** A shape with one more corner, in the middle of the edge after one. */
export function addCorner(shape: WorkShape, after: number): WorkShape {
  const corners = cornersIn(shape);
  const [from, to] = [corners[after], corners[(after + 1) % corners.length]];
  if (from === undefined || to === undefined) return shape;
  const between = { alongM: (from.alongM + to.alongM) / 2, acrossM: (from.acrossM + to.acrossM) / 2 };
  return { kind: 'corners', corners: corners.toSpliced(after + 1, 0, between) };
}

/** A shape without one of its corners. */
export const removeCorner = (shape: WorkShape, at: number): WorkShape => ({
  kind: 'corners',
  corners: cornersIn(shape).toSpliced(at, 1),
});
