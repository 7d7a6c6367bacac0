import fc from 'fast-check';
import { expect, test } from 'vitest';
import { labelFrom, LONGEST_LABEL } from './functions.ts';

test.each([
  ['Scene', 'Scene'],
  ['Left alley', 'Left alley'],
  ['Hatch supplement', 'Hatch'],
  ['Scene all round', 'Scene all'],
  ['Twelve chars', 'Twelve chars'],
  ['Supplementary', 'Supplementa.'],
  ['Tail and marker lamps', 'Tail'],
])('%s on a key is %s', (name, label) => expect(labelFrom(name)).toBe(label));

test('a label fits its key, and is cut within no word that fits', () => {
  fc.assert(
    fc.property(fc.array(fc.stringMatching(/^[a-z]{1,9}$/), { minLength: 1, maxLength: 8 }), (words) => {
      const label = labelFrom(words.join(' '));
      expect(label.length).toBeLessThanOrEqual(LONGEST_LABEL);
      expect(words.slice(0, label.split(' ').length).join(' ')).toBe(label);
    }),
  );
});
