import { expect, test } from 'vitest';
import { formatDate } from './formatDate';

test('a date, a moment and a time are each written one way', () => {
  const at = new Date(2026, 11, 1, 10, 5);
  expect(formatDate(at)).toBe('1 Dec 2026, 10:05');
  expect(formatDate(at.toISOString(), 'date')).toBe('1 Dec 2026');
  expect(formatDate(at.getTime(), 'time')).toBe('10:05');
});
