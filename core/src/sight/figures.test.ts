import { expect, test } from 'vitest';
import { FIGURES } from '../../test/reference/figures.ts';

test.each(FIGURES)('$quantity', ({ expected, within, found }) => {
  expect(Math.abs(found() - expected) / expected).toBeLessThan(within);
});
