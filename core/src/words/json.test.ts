import { expect, test } from 'vitest';
import { MAX_BUILD_BYTES, parseJson } from './json.ts';

const read = (text: string): unknown => parseJson(text, 'pack');

test('a byte-order mark before the text is dropped, and no other', () => {
  expect(read('\uFEFF{"a":[1]}')).toEqual({ a: [1] });
  expect(read('"\uFEFF"')).toBe('\uFEFF');
  expect(() => read('\uFEFF\uFEFF{}')).toThrow(/^the pack is not valid JSON: /);
});

test('brackets are counted where they open something, not in texts', () => {
  const nested = (deep: number): string => '['.repeat(deep) + ']'.repeat(deep);
  expect(read(nested(64))).toBeInstanceOf(Array);
  expect(() => read(nested(65))).toThrow('the pack is nested more than 64 deep');
  const inText = '['.repeat(100);
  expect(read(JSON.stringify([`\\"${inText}`]))).toEqual([`\\"${inText}`]);
  expect(read(`[${'[],'.repeat(200)}[]]`)).toHaveLength(201);
});

test('what is too large is not read', () => {
  expect(read(JSON.stringify('x'.repeat(MAX_BUILD_BYTES - 2)))).toHaveLength(MAX_BUILD_BYTES - 2);
  expect(() => read(JSON.stringify('x'.repeat(MAX_BUILD_BYTES - 1)))).toThrow(/^the pack is too large: /);
});
