import { describe, expect, test } from 'vitest';
import fc from 'fast-check';
import { formatNumber, formatQuantity } from './quantity.ts';

describe('a quantity', () => {
  test.each([
    [17_820, 'cd', 'up', '17,900 cd'],
    [17_820, 'cd', 'down', '17,800 cd'],
    [35_934.2, 'cd·s/min', 'down', '35,900 cd·s/min'],
    [40, 'cd', 'nearest', '40 cd'],
    [5.049, 'cd/m²', 'nearest', '5.05 cd/m²'],
    [0.0314, 'lx', 'up', '0.0314 lx'],
    [999.6, 'cd', 'up', '1,000 cd'],
    [0, 'cd', 'up', '0 cd'],
    [1, 'holes', 'up', '1 hole'],
    [2, 'holes', 'up', '2 holes'],
    [1e-320, 'cd', 'nearest', '0 cd'],
    [Infinity, 'ms', 'up', 'unlimited'],
    [66.04, '°', 'nearest', '66°'],
    [37.31, '/min', 'down', '37.3/min'],
    [1234.5, 'mm', 'up', '1,235 mm'],
    [-1.24, 's', 'nearest', '−1.2 s'],
  ] as const)('%s %s, %s', (value, unit, rounding, text) => {
    expect(formatQuantity(value, unit, rounding)).toBe(text);
  });

  test('is never rounded to the better side of its limit', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-3, max: 1e7, noNaN: true }), (value) => {
        const read = (text: string): number => Number(text.replaceAll(',', '').split(' ')[0]);
        const close = value * 1e-6;
        expect(read(formatQuantity(value, 'cd', 'up'))).toBeGreaterThanOrEqual(value - close);
        expect(read(formatQuantity(value, 'cd', 'down'))).toBeLessThanOrEqual(value + close);
        expect(formatQuantity(value, 'cd')).not.toMatch(/e/);
      }),
    );
  });

  test('a number is grouped by thousands', () => {
    expect(formatNumber(9_588_178_944)).toBe('9,588,178,944');
  });
});
