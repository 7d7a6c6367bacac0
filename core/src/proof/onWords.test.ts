import fc from 'fast-check';
import { expect, test } from 'vitest';
import { checkProgramme } from '../../test/reference/checkProgramme.ts';
import { randomProgramme } from '../../test/reference/randomProgramme.ts';
import { onKey, onsOf } from '../design/controls.ts';
import { onNames } from './atMoment.ts';
import { Rows } from './bits.ts';
import { Machine } from './machine.ts';
import { OnWords } from './onWords.ts';

test('whatever is on is read back by name, is asked for one by one, and told apart by the bits of some alone', () => {
  fc.assert(
    fc.property(randomProgramme, fc.infiniteStream(fc.nat(7)), (programme, stream) => {
      const { ranked } = programme;
      const words = new OnWords(ranked, [...ranked.keys()]);
      const names = onNames(ranked);
      const r = new Machine(programme).blank();
      const next = (most: number): number => (stream.next().value ?? 0) % (most + 1);
      const row = new Uint32Array(2 * words.width);
      for (const half of [0, 1]) {
        const there = new Uint32Array(words.width);
        for (const [rank, fn] of ranked.entries()) {
          r.memory[rank] = fn.when.way === 'cycle' ? 1 + next(fn.shows.length - 1) : 1;
          r.on[rank] = next(1);
          words.put(rank, r, there);
        }
        row.set(there, half * words.width);
        const on = names(r);
        expect(words.onsAt(row, half * words.width)).toEqual(on);
        for (const fn of ranked)
          for (const one of fn.when.way === 'cycle' ? onsOf(fn) : [onKey(fn.id, 1)])
            expect(words.asks(one)(row, half * words.width)).toBe(on.includes(one));
      }
      expect(words.asks('nobody')(row, 0)).toBe(false);
      // By the bits of one function two rows are alike just when it is on, by its number, in both or in neither.
      const rows = new Rows(row, words.width);
      for (const { id } of ranked) {
        const of = (from: number) =>
          words.onsAt(row, from).filter((on) => on === id || on.startsWith(`${id}:`));
        const alike = of(0).join() === of(words.width).join();
        expect(rows.classes(words.maskOf([id])).firsts).toHaveLength(alike ? 1 : 2);
      }
    }),
    { numRuns: 80, seed: 4 },
  );
});

test.each([
  // Numbers of a cycle, and none: so many bits; so many of these to a word.
  [1, 1, 32],
  [3, 2, 16],
  [4, 3, 10],
  [8, 4, 8],
])('cycles of %d numbers take %d bits, and no field is broken in two', (numbers, _, inWord) => {
  const [like] = checkProgramme().programme.ranked;
  if (like === undefined) throw new Error('it has functions');
  const [shown] = like.shows;
  const count = 2 * inWord + 1;
  const cycles = Array.from({ length: count }, (__, i) => ({
    ...like,
    id: `cycle-${i}`,
    shows: Array.from({ length: numbers }, () => shown ?? { cues: [], dims: [], loads: [] }),
    when: { way: 'cycle' as const, sets: [], steps: [], clears: [], wraps: 'off' as const, timeoutMs: 0 },
  }));
  const words = new OnWords(cycles, [...cycles.keys()]);
  expect(words.width).toBe(3);
  const row = new Uint32Array(words.width);
  const r = {
    values: new Uint8Array(0),
    memory: new Uint8Array(count).fill(numbers),
    phases: new Uint8Array(count),
    on: new Uint8Array(count).fill(1),
  };
  for (const rank of cycles.keys()) words.put(rank, r, row);
  expect(words.onsAt(row, 0)).toEqual(cycles.map(({ id }) => onKey(id, numbers)));
});
