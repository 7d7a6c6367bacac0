import { Bits, type Rows } from './bits.ts';

/**
 * Of rows taken as sets, by some of their bits, those that hold no other where more helps, or are held by no other where
 * more hurts; of equal ones the first. All of them where that is not known.
 * @param of - the rows, by their places
 * @param mask - the bits that count, word by word
 */
export function extremes(
  rows: Rows,
  of: readonly number[],
  mask: Uint32Array,
  more: 'helps' | 'hurts' | null,
): readonly number[] {
  if (more === null) return of;
  const sets = of.map((row) => {
    const set = new Bits(rows.row(row)).and(new Bits(mask));
    return { row, set, size: set.size };
  });
  // What beats another is smaller where more helps, and larger where more hurts.
  const order = sets.toSorted((a, b) => (more === 'helps' ? a.size - b.size : b.size - a.size));
  const out: typeof sets = [];
  for (const one of order)
    if (!out.some(({ set }) => (more === 'helps' ? set.isWithin(one.set) : one.set.isWithin(set))))
      out.push(one);
  return out.map(({ row }) => row);
}
