import { FIGURES } from '../core/test/reference/figures.ts';

/** Prints the figures that the sources of the formulas give beside those that are computed; exit 1 when one is off. */
const rows = FIGURES.map(({ quantity, expected, within, found }) => {
  const is = found();
  const off = Math.abs(is - expected) / expected;
  return { quantity, expected, is, off, good: off < within };
});
const wide = Math.max(...rows.map(({ quantity }) => quantity.length));
const figure = (v: number): string => (v !== 0 && Math.abs(v) < 0.01 ? v.toExponential(4) : v.toPrecision(6));
console.log(`${'quantity'.padEnd(wide)}  ${'expected'.padStart(12)}  ${'found'.padStart(12)}  off`);
for (const { quantity, expected, is, off, good } of rows)
  console.log(
    `${quantity.padEnd(wide)}  ${figure(expected).padStart(12)}  ${figure(is).padStart(12)}  ${(100 * off).toFixed(3)} %${good ? '' : '  OFF'}`,
  );
if (rows.some(({ good }) => !good)) process.exitCode = 1;
