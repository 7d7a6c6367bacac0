import fc from 'fast-check';
import { expect, test } from 'vitest';
import { NearestRows } from './nearestRows.ts';

test('each row once, by the shortest way that was noted first; the nearest first, and of those as near the first found', () => {
  const noted = fc.array(
    fc.record({ row: fc.tuple(fc.nat(3), fc.nat(2)), depth: fc.nat(6), place: fc.nat(9) }),
    { maxLength: 80 },
  );
  fc.assert(
    fc.property(noted, (all) => {
      const found = new NearestRows(2, 1);
      const plain = new Map<string, { row: readonly number[]; depth: number; place: number }>();
      for (const one of all) {
        found.note(Uint32Array.from(one.row), one.depth, [one.place]);
        const known = plain.get(one.row.join());
        // What is found again nearer keeps its turn among those as near.
        if (known === undefined) plain.set(one.row.join(), { ...one });
        else if (one.depth < known.depth) Object.assign(known, one);
      }
      const sorted = [...plain.values()].toSorted((a, b) => a.depth - b.depth);
      const { rows, depths, places } = found.nearestFirst();
      expect(found.count).toBe(plain.size);
      expect([...rows.words]).toEqual(sorted.flatMap(({ row }) => row));
      expect([...depths]).toEqual(sorted.map(({ depth }) => depth));
      expect([...places.words]).toEqual(sorted.map(({ place }) => place));
    }),
    { numRuns: 300, seed: 1 },
  );
});

test('it grows past its first room, and still knows what it has', () => {
  const found = new NearestRows(1, 2);
  const many = 5000;
  for (let turn = 0; turn < 2; turn++)
    for (let n = 0; n < many; n++) found.note(Uint32Array.of(n), many - n + 1 - turn, [n, turn]);
  expect(found.count).toBe(many);
  const { rows, depths, places } = found.nearestFirst();
  expect(rows.words[0]).toBe(many - 1);
  expect(depths[0]).toBe(1);
  expect(places.words.slice(0, 2)).toEqual(Uint32Array.of(many - 1, 1));
});
