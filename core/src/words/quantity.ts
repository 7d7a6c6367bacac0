/** How a figure is rounded: away from the limit that it breaks, or to the nearest. */
export type Rounding = 'up' | 'down' | 'nearest';

/** Units of light get three significant figures: no calculation of light is better. */
const LIGHT = new Set(['cd', 'lx', 'cd/m²', 'cd·s/min']);
const SIGNIFICANT = 3;
const LOCALE = 'en-GB';

const ROUND: Readonly<Record<Rounding, (v: number) => number>> = {
  up: (v) => Math.ceil(v - 1e-9),
  down: (v) => Math.floor(v + 1e-9),
  nearest: Math.round,
};

/** A number with grouped thousands. @param places - behind the point, where they are not zero */
export const formatNumber = (value: number, places = 0): string =>
  value.toLocaleString(LOCALE, { maximumFractionDigits: places }).replace('-', '−');

/**
 * A value with its unit as a sentence or a table shows it: "17,900 cd", "48/min", "66°".
 * @param unit - as it is written behind the number
 */
export function formatQuantity(value: number, unit: string, rounding: Rounding = 'nearest'): string {
  const step = LIGHT.has(unit) ? lightStep(value) : Math.abs(value) < 100 ? 0.1 : 1;
  const rounded = ROUND[rounding](value / step) * step;
  const joined = unit === '°' || unit.startsWith('/') ? '' : ' ';
  return `${formatNumber(rounded, Math.max(0, -Math.floor(Math.log10(step) + 1e-9)))}${joined}${unit}`;
}

/** What the last of the significant figures counts. */
const lightStep = (value: number): number =>
  value === 0 ? 1 : 10 ** (Math.floor(Math.log10(Math.abs(value))) - SIGNIFICANT + 1);
