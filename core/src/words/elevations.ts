import { formatQuantity } from './quantity.ts';

/** A rule looks at every whole degree of a range. */
const STEP_DEG = 1;

/** Elevations as they are read out and typed: ranges of whole degrees are joined, "-5 to 5; 10". */
export function elevationsText(degrees: readonly number[]): string {
  const runs: [from: number, to: number][] = [];
  for (const deg of degrees.toSorted((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last?.[1] === deg - STEP_DEG) last[1] = deg;
    else runs.push([deg, deg]);
  }
  return runs
    .flatMap(([from, to]) =>
      to - from > STEP_DEG ? [`${from} to ${to}`] : from === to ? [`${from}`] : [`${from}`, `${to}`],
    )
    .join('; ');
}

/**
 * Elevations as they are typed: figures and ranges "from to", a semicolon between.
 * @returns degrees, each once; NaN for what is no figure
 */
export function elevationsOf(text: string): number[] {
  const each = text
    .split(';')
    .map((piece) => piece.trim())
    .filter((piece) => piece !== '')
    .flatMap((piece) => {
      const [from = NaN, to = from, ...more] = piece.split(/\s+to\s+/).map(Number);
      if (more.length > 0 || !Number.isFinite(to - from) || to < from || to - from > LONGEST_DEG)
        return [NaN];
      return Array.from({ length: Math.floor((to - from) / STEP_DEG) + 1 }, (_, i) => from + i * STEP_DEG);
    });
  return [...new Set(each)];
}

/** No range is longer: from one end of what a rule may look from to the other. */
export const LONGEST_DEG = 60;

/** What a sentence adds for a view along an elevation: " Elevation: −5°."; nothing for the horizontal. */
export const elevationText = (deg: number): string =>
  deg === 0 ? '' : ` Elevation: ${formatQuantity(deg, '°')}.`;
