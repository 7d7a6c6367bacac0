import { expect, test } from 'vitest';
import { proposedPacks, type ShelvedPack } from './proposed';

const pack = (id: string, name: string, rules = 3): ShelvedPack => ({ id, name, rules });
const packs = [
  pack('here', 'Kestrel Sound lighting by-law (example)'),
  pack('there', 'Dunmarrow lighting by-law (example)'),
  pack('shop', 'What our shop does'),
  pack('form', 'Blank rule pack (form)', 0),
];
const known = ['Kestrel Sound', 'Dunmarrow, over the causeway'];
const ids = (drivesIn: string[]) => proposedPacks(packs, drivesIn, known).map((p) => p.id);

test('packs of where it drives, and those of no place; not the neighbour’s, not an empty form', () => {
  expect(ids(['kestrel sound'])).toEqual(['here', 'shop']);
  expect(ids(['Dunmarrow', 'Kestrel Sound'])).toEqual(['here', 'there', 'shop']);
  expect(ids([])).toEqual(['shop']);
  expect(ids([''])).toEqual(['shop']);
});
