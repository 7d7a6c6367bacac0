import { describe, expect, test } from 'vitest';
import { matching, type Findable } from './finder';

describe('the finder', () => {
  const items: Findable[] = ['Rear left corner', 'Rear right corner', 'Grille L'].map((text) => ({
    id: text,
    kind: 'Lamp',
    text,
    run: () => undefined,
  }));
  test('finds by every word, in any order, of text or kind', () => {
    expect(matching(items, 'left rear').map((i) => i.text)).toEqual(['Rear left corner']);
    expect(matching(items, 'LAMP')).toHaveLength(3);
    expect(matching(items, '')).toHaveLength(3);
    expect(matching(items, 'roof')).toEqual([]);
  });
  test('what begins as typed comes first', () => {
    const named = (text: string): Findable => ({ id: text, kind: 'Zone', text, run: () => undefined });
    const found = matching([named('Bar over the roof'), named('Roof: skin')], 'roof');
    expect(found.map((i) => i.text)).toEqual(['Roof: skin', 'Bar over the roof']);
  });
  test('shows the first few of many', () => {
    const many = Array.from({ length: 50 }, (_, i): Findable => ({
      id: `${i}`,
      kind: 'Zone',
      text: `z${i}`,
      run: () => undefined,
    }));
    expect(matching(many, 'zone')).toHaveLength(12);
  });
});
