import type { Piece } from '@flarik/core/coverage/seen';

/** The highest value of some pieces; a little more than nothing at least, so that a scale can be made of it. */
export const topOf = (pieces: readonly Piece[]): number =>
  Math.max(1e-9, ...pieces.flatMap((p) => [p.startCd, p.endCd]));

/** Pieces as a path: the outline alone, or filled down to nothing. */
export function outlineOf(
  pieces: readonly Piece[],
  x: (ms: number) => number,
  y: (value: number) => number,
  filled: boolean,
): string {
  const [first] = pieces;
  const last = pieces.at(-1);
  if (first === undefined || last === undefined) return '';
  const at = (ms: number, value: number): string => `${x(ms).toFixed(1)} ${y(value).toFixed(1)}`;
  const points = pieces.flatMap((p) => [at(p.fromMs, p.startCd), at(p.toMs, p.endCd)]);
  return filled ? `M${at(first.fromMs, 0)}L${points.join('L')}L${at(last.toMs, 0)}Z` : `M${points.join('L')}`;
}

/** The times in a stretch in which less than a threshold is seen; a ramp is cut where it crosses it. */
export function darkIn(
  pieces: readonly Piece[],
  threshold: number,
): readonly { readonly fromMs: number; readonly toMs: number }[] {
  const gaps: { fromMs: number; toMs: number }[] = [];
  for (const p of pieces) {
    const [dark, darkAfter] = [p.startCd < threshold, p.endCd < threshold];
    if (!dark && !darkAfter) continue;
    const cross = p.fromMs + ((threshold - p.startCd) / (p.endCd - p.startCd)) * (p.toMs - p.fromMs);
    const gap = { fromMs: dark ? p.fromMs : cross, toMs: darkAfter ? p.toMs : cross };
    const last = gaps.at(-1);
    if (last !== undefined && Math.abs(last.toMs - gap.fromMs) < 1e-6) last.toMs = gap.toMs;
    else gaps.push(gap);
  }
  return gaps.filter((g) => g.toMs - g.fromMs > 0.5);
}
