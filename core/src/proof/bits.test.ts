import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { ALL, allBits, Bits, countBits, grown, hasBit, putBit, Rows, RowTable } from './bits.ts';

describe('sets of numbers', () => {
  test('what goes in is in, and nothing else; size and both as of plain sets', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 130 }), fc.nat(), fc.nat(), (size, a, b) => {
        const some = (seed: number) =>
          Array.from({ length: size }, (_, i) => i).filter((i) => ((seed >> (i % 30)) & 1) === 1);
        const [left, right] = [some(a), some(b)];
        const [one, other] = [Bits.of(left, size), Bits.of(right, size)];
        for (let n = 0; n < size; n++) expect(one.has(n)).toBe(left.includes(n));
        expect(one.words.reduce((sum, word) => sum + countBits(word), 0)).toBe(left.length);
        expect(one.isEmpty).toBe(left.length === 0);
        const both = left.filter((n) => right.includes(n));
        expect(one.and(other)).toEqual(Bits.of(both, size));
      }),
      { numRuns: 300, seed: 1 },
    );
  });

  test('the last bit of a word is counted as any other', () => {
    const ends = Bits.of([31, 32, 63], 64);
    expect(ends.words).toEqual(Uint32Array.of(0x80000000, 0x80000001));
    expect(countBits(0x80000001)).toBe(2);
    expect(countBits(ALL)).toBe(32);
    expect([30, 31, 32, 33, 62, 63].filter((n) => ends.has(n))).toEqual([31, 32, 63]);
  });

  test('bits of words that begin at a place', () => {
    const words = new Uint32Array(4);
    putBit(words, 1, 0);
    putBit(words, 1, 33);
    expect(words).toEqual(Uint32Array.of(0, 1, 2, 0));
    expect([hasBit(words, 1, 0), hasBit(words, 1, 1), hasBit(words, 1, 33), hasBit(words, 0, 32)]).toEqual([
      true,
      false,
      true,
      true,
    ]);
  });

  test('a list grows at its end', () => {
    expect(grown(Int32Array.of(1, 2), new Int32Array(4))).toEqual(Int32Array.of(1, 2, 0, 0));
  });
});

describe('rows', () => {
  const table = fc.integer({ min: 1, max: 4 }).chain((width) =>
    fc.record({
      width: fc.constant(width),
      rows: fc.array(
        fc.array(fc.constantFrom(0, 1, 2, 3, 0x80000000, ALL), { minLength: width, maxLength: width }),
        {
          maxLength: 60,
        },
      ),
      mask: fc.array(fc.constantFrom(0, 1, 3, 0x80000000, ALL), { minLength: width, maxLength: width }),
    }),
  );

  test('sorted by some of their bits: as by plain texts of these, each class by its first row', () => {
    fc.assert(
      fc.property(table, ({ width, rows, mask }) => {
        const { classOf, firsts } = new Rows(Uint32Array.from(rows.flat()), width).classes(
          Uint32Array.from(mask),
        );
        const text = (row: readonly number[]) => row.map((word, w) => (word & (mask[w] ?? 0)) >>> 0).join();
        const plain = new Map<string, number>();
        const numbers = rows.map((row) => {
          const number = plain.get(text(row)) ?? plain.size;
          plain.set(text(row), number);
          return number;
        });
        expect([...classOf]).toEqual(numbers);
        expect([...firsts]).toEqual([...plain.values()].map((number) => numbers.indexOf(number)));
      }),
      { numRuns: 300, seed: 2 },
    );
  });

  test('picked rows stand in the order they were asked for', () => {
    const rows = new Rows(Uint32Array.of(1, 2, 3, 4, 5, 6), 2);
    expect(rows.count).toBe(3);
    expect(rows.pick(Uint32Array.of(2, 0, 2)).words).toEqual(Uint32Array.of(5, 6, 1, 2, 5, 6));
  });

  test('thousands of rows that differ in one high bit or another are all told apart', () => {
    // What mixes words badly lets them fall together, and a table that is found full never ends.
    const words = Uint32Array.from({ length: 20_000 }, (_, i) => (i % 2 === 0 ? 0 : (i * 0x10000) >>> 0));
    const rows = new Rows(words, 2);
    expect(rows.classes(allBits(2)).firsts).toHaveLength(new Set(words.filter((_, i) => i % 2 === 1)).size);
  });

  test('a table finds every row again after it has grown, and no other', () => {
    const rows = new RowTable(1, allBits(1));
    const words = Uint32Array.from({ length: 2000 }, (_, i) => i * i);
    for (const row of words.keys()) {
      expect(rows.find(words, row, words)).toBe(-1);
      rows.add(row);
    }
    for (const row of words.keys()) expect(rows.find(words, row, words)).toBe(row);
    expect(rows.find(words, 0, Uint32Array.of(3))).toBe(-1);
  });
});
