/** A figure as people write it: digits with a decimal point, a sign before them. NaN when it is anything else, as 1e3 or 0x10. */
export const decimal = (text: string): number =>
  /^\s*[+-]?(\d+\.?\d*|\.\d+)\s*$/.test(text) ? Number(text) : Number.NaN;
