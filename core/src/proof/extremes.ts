import { countBits, type Rows } from './bits.ts';

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
  if (more === null || of.length < 2) return of;
  const asked = [...mask.keys()].filter((w) => mask[w] !== 0);
  const width = asked.length;
  // The sets side by side: what somebody looks at is a few words of many.
  const sets = new Uint32Array(of.length * width);
  const sizes = new Uint32Array(of.length);
  for (let i = 0; i < of.length; i++) {
    const from = (of[i] ?? 0) * rows.width;
    for (let k = 0; k < width; k++) {
      const w = asked[k] ?? 0;
      const word = (rows.words[from + w] ?? 0) & (mask[w] ?? 0);
      sets[i * width + k] = word;
      sizes[i] = (sizes[i] ?? 0) + countBits(word);
    }
  }
  // What beats another is smaller where more helps, and larger where more hurts.
  const most = 32 * width;
  const order = Float64Array.from(
    sizes,
    (size, i) => (more === 'helps' ? size : most - size) * of.length + i,
  ).sort();
  const out: number[] = [];
  for (const key of order) {
    const one = key % of.length;
    let isBeaten = false;
    for (let k = 0; k < out.length && !isBeaten; k++) {
      const other = out[k] ?? 0;
      isBeaten =
        more === 'helps'
          ? isWithin(sets, other * width, one * width, width)
          : isWithin(sets, one * width, other * width, width);
    }
    if (!isBeaten) out.push(one);
  }
  return out.map((i) => of[i] ?? 0);
}

/** Whether the set that begins at one place holds all of the set that begins at another. */
function isWithin(sets: Uint32Array, less: number, more: number, width: number): boolean {
  for (let k = 0; k < width; k++) if (((sets[less + k] ?? 0) & ~(sets[more + k] ?? 0)) !== 0) return false;
  return true;
}
