import { expect, test } from 'vitest';
import { recent } from './recent.ts';

test('work asked for again is not done again, until newer work has pushed it out', () => {
  const done: number[] = [];
  const square = recent(2, String, (n: number) => {
    done.push(n);
    return { n: n * n };
  });
  const four = square(2);
  expect(four.n).toBe(4);
  expect(square(2)).toBe(four);
  square(3);
  square(2);
  square(5);
  expect(square(2)).toBe(four);
  expect(done).toEqual([2, 3, 5]);
  square(3);
  expect(done).toEqual([2, 3, 5, 3]);
});
