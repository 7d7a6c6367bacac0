import fc from 'fast-check';
import { expect, test } from 'vitest';
import { apart } from './apart';

test('a name alone stays at the height of its point; a second one at the same place moves by a line', () => {
  const name = { x: 10, y: 50, left: false, wide: 80 };
  expect(apart([name, name, { ...name, x: 200 }], 15, 300)).toEqual([50, 65, 50]);
  // To the left of its point it is clear of one to the right.
  expect(apart([name, { ...name, left: true }], 15, 300)).toEqual([50, 50]);
});

test('no name lies over another as long as there is room', () => {
  const name = fc.record({
    x: fc.integer({ min: 0, max: 700 }),
    y: fc.integer({ min: 10, max: 290 }),
    left: fc.boolean(),
    wide: fc.integer({ min: 20, max: 200 }),
  });
  fc.assert(
    fc.property(fc.array(name, { maxLength: 9 }), (names) => {
      const heights = apart(names, 15, 300);
      const boxes = names.map(({ x, left, wide }, i) => ({
        from: left ? x - wide : x,
        to: left ? x : x + wide,
        y: heights[i] ?? NaN,
      }));
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1))
          expect(a.to <= b.from || b.to <= a.from || Math.abs(a.y - b.y) >= 15).toBe(true);
    }),
  );
});
