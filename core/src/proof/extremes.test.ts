import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Rows } from './bits.ts';
import { extremes } from './extremes.ts';

const word = fc.integer({ min: 0, max: 15 });

test('of sets none that another makes needless, and of equal ones the first: as by trying all pairs', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(word, word), { maxLength: 12 }),
      fc.tuple(word, word),
      fc.constantFrom('helps' as const, 'hurts' as const),
      (sets, mask, more) => {
        const rows = new Rows(Uint32Array.from(sets.flat()), 2);
        const of = [...sets.keys()];
        const within = (a: number, b: number): boolean =>
          [0, 1].every((w) => {
            const bits = mask[w] ?? 0;
            return ((sets[a]?.[w] ?? 0) & bits & ~(sets[b]?.[w] ?? 0)) === 0;
          });
        const isBeaten = (one: number): boolean =>
          of.some((other) => {
            if (other === one) return false;
            const beats = more === 'helps' ? within(other, one) : within(one, other);
            const isEqual = within(one, other) && within(other, one);
            return beats && (!isEqual || other < one);
          });
        const found = extremes(rows, of, Uint32Array.from(mask), more);
        expect([...found].sort((a, b) => a - b)).toEqual(of.filter((one) => !isBeaten(one)));
      },
    ),
    { numRuns: 500, seed: 3 },
  );
});

test('where it is not known what one more does, all are kept', () => {
  expect(extremes(new Rows(Uint32Array.of(1, 3, 1), 1), [0, 1, 2], Uint32Array.of(3), null)).toEqual([
    0, 1, 2,
  ]);
});
