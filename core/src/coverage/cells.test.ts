import fc from 'fast-check';
import { expect, test } from 'vitest';
import { cellOf, CELLS, mayMeet } from './cells.ts';

const unit = fc
  .tuple(...([0, 1, 2] as const).map(() => fc.double({ min: -1, max: 1, noNaN: true })))
  .filter((v) => Math.hypot(...v) > 1e-3)
  .map((v) => v.map((c) => c / Math.hypot(...v)));

test('every direction has a cell, those of edges and corners too, and there are none without', () => {
  const met = new Set<number>();
  for (let x = -20; x <= 20; x++)
    for (let y = -20; y <= 20; y++)
      for (let z = -20; z <= 20; z++) if (x !== 0 || y !== 0 || z !== 0) met.add(cellOf(x, y, z));
  expect(Math.min(...met)).toBe(0);
  expect(Math.max(...met)).toBe(CELLS - 1);
  expect(met.size).toBe(CELLS);
});

test('what lies in a cone is never left out, and most cells that lie elsewhere are', () => {
  let [left, asked] = [0, 0];
  fc.assert(
    fc.property(unit, unit, fc.double({ min: 0.01, max: 3, noNaN: true }), (axis, towards, halfRad) => {
      const [x = 0, y = 0, z = 0] = axis;
      const [p = 0, q = 0, r = 0] = towards;
      const between = Math.acos(Math.min(1, Math.max(-1, x * p + y * q + z * r)));
      const may = mayMeet(cellOf(p, q, r), x, y, z, Math.cos(halfRad), Math.sin(halfRad));
      if (between <= halfRad) expect(may).toBe(true);
      // A cell is no wider than 12° from its middle to its corners.
      if (between > halfRad + 0.42) {
        asked++;
        if (!may) left++;
      }
    }),
    { numRuns: 2000 },
  );
  expect(asked).toBeGreaterThan(100);
  expect(left).toBe(asked);
});
