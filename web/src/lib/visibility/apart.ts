/** A name beside a point of a picture. */
export interface Name {
  readonly x: number;
  readonly y: number;
  /** It stands to the left of its point. */
  readonly left: boolean;
  readonly wide: number;
}

/**
 * Heights for names so that none lies over another: each keeps its point’s height where that is free, and else takes
 * the nearest that is.
 * @param line - what a name takes up in height
 * @param high - of the picture
 */
export function apart(names: readonly Name[], line: number, high: number): number[] {
  const taken: { readonly from: number; readonly to: number; readonly y: number }[] = [];
  return names.map(({ x, y, left, wide }) => {
    const [from, to] = left ? [x - wide, x] : [x, x + wide];
    const isFree = (at: number): boolean =>
      at >= line / 2 &&
      at <= high - line / 2 &&
      taken.every((other) => other.to <= from || other.from >= to || Math.abs(other.y - at) >= line);
    const steps = Array.from({ length: Math.ceil(high / line) }, (_, i) => i + 1);
    const at = [y, ...steps.flatMap((i) => [y + i * line, y - i * line])].find(isFree) ?? y;
    taken.push({ from, to, y: at });
    return at;
  });
}
