/** How a figure is rounded: away from the limit that it breaks, or to the nearest. */
export type Rounding = 'up' | 'down' | 'nearest';

/** Units of light get three significant figures: no calculation of light is better. */
const LIGHT = new Set(['cd', 'lx', 'cd/m²', 'cd·s/min']);
/** Things that are counted; one of them has no plural. */
const COUNTED = new Set(['holes', 'lamps', 'outputs', 'pulses', 'rhythms']);
const SIGNIFICANT = 3;
const LOCALE = 'en-GB';

const ROUND: Readonly<Record<Rounding, (v: number) => number>> = {
  // Adding zero turns a negative zero into zero.
  up: (v) => Math.ceil(v - 1e-9) + 0,
  down: (v) => Math.floor(v + 1e-9) + 0,
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
  if (!Number.isFinite(value)) return 'unlimited';
  const step = LIGHT.has(unit) ? lightStep(value) : Math.abs(value) < 100 ? 0.1 : 1;
  const rounded = ROUND[rounding](value / step) * step;
  const joined = unit === '°' || unit.startsWith('/') ? '' : ' ';
  const counted = rounded === 1 && COUNTED.has(unit) ? unit.slice(0, -1) : unit;
  return `${formatNumber(rounded, Math.max(0, -Math.floor(Math.log10(step) + 1e-9)))}${joined}${counted}`;
}

/** What the last of the significant figures counts, and at least a ten-thousandth. */
const lightStep = (value: number): number =>
  Math.max(1e-4, 10 ** (Math.floor(Math.log10(Math.abs(value))) - SIGNIFICANT + 1));
