import type { SignalSegment } from '@flarik/core/timing/signal';

/** The highest value of some pieces; a little more than nothing at least, so that a scale can be made of it. */
export const topOf = (pieces: readonly SignalSegment[]): number =>
  Math.max(1e-9, ...pieces.flatMap((p) => [p.start, p.end]));

/** Pieces as a path: the outline alone, or filled down to nothing. */
export function piecesPath(
  pieces: readonly SignalSegment[],
  x: (ms: number) => number,
  y: (value: number) => number,
  filled: boolean,
): string {
  const [first] = pieces;
  const last = pieces.at(-1);
  if (first === undefined || last === undefined) return '';
  const at = (ms: number, value: number): string => `${x(ms).toFixed(1)} ${y(value).toFixed(1)}`;
  const points = pieces.flatMap((p) => [at(p.fromMs, p.start), at(p.toMs, p.end)]);
  return filled ? `M${at(first.fromMs, 0)}L${points.join('L')}L${at(last.toMs, 0)}Z` : `M${points.join('L')}`;
}
