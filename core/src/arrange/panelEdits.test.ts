import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { placesOf, type Control, type Panel } from '../design/panel.ts';
import { button, moveOnPanel, newPanel } from './panelEdits.ts';

const key = (id: string, column: number, row: number): Control =>
  button(id, id, { page: 1, column, row }, null);
const slide: Control = {
  kind: 'slide',
  id: 'slide',
  label: 'Stages',
  page: 1,
  column: 1,
  row: 2,
  twinOf: null,
  backlit: true,
  values: ['off', '1', '2'],
};
const panel: Panel = {
  ...newPanel('p', 'Panel'),
  controls: [key('a', 1, 1), key('b', 2, 1), slide],
};
const placed = (after: Panel | null): Record<string, string> | null =>
  after === null ? null : Object.fromEntries(after.controls.map((c) => [c.id, placesOf(c).join(' ')]));

describe('a control is moved on its panel', () => {
  test('to a free cell, and to another page', () => {
    expect(placed(moveOnPanel(panel, 'a', { page: 1, column: 4, row: 1 }))).toMatchObject({
      a: '1/1/4',
      b: '1/1/2',
    });
    expect(placed(moveOnPanel(panel, 'a', { page: 2, column: 2, row: 1 }))).toMatchObject({
      a: '2/1/2',
      b: '1/1/2',
    });
  });
  test('onto one of its width: they change places', () => {
    expect(placed(moveOnPanel(panel, 'a', { page: 1, column: 2, row: 1 }))).toMatchObject({
      a: '1/1/2',
      b: '1/1/1',
    });
  });
  test('a wide one moves by one cell over itself', () => {
    expect(placed(moveOnPanel(panel, 'slide', { page: 1, column: 2, row: 2 }))).toMatchObject({
      slide: '1/2/2 1/2/3 1/2/4',
    });
  });
  test('not over a wider or narrower one, not off the panel, and not one that is not there', () => {
    expect(moveOnPanel(panel, 'a', { page: 1, column: 2, row: 2 })).toBeNull();
    expect(moveOnPanel(panel, 'slide', { page: 1, column: 1, row: 1 })).toBeNull();
    expect(moveOnPanel(panel, 'slide', { page: 1, column: 11, row: 2 })).toBeNull();
    expect(moveOnPanel(panel, 'a', { page: 1, column: 0, row: 1 })).toBeNull();
    expect(moveOnPanel(panel, 'a', { page: 1, column: 1, row: 9 })).toBeNull();
    expect(moveOnPanel(panel, 'none', { page: 1, column: 5, row: 1 })).toBeNull();
  });
  test('whatever is moved wherever, no two share a place and none is lost', () => {
    const at = fc.record({
      page: fc.integer({ min: 1, max: 2 }),
      column: fc.integer({ min: -1, max: 13 }),
      row: fc.integer({ min: -1, max: 9 }),
    });
    const moves = fc.array(fc.tuple(fc.constantFrom('a', 'b', 'slide'), at), { maxLength: 12 });
    fc.assert(
      fc.property(moves, (list) => {
        const after = list.reduce((p, [id, to]) => moveOnPanel(p, id, to) ?? p, panel);
        const places = after.controls.flatMap(placesOf);
        expect(new Set(places).size).toBe(5);
        expect(places).toHaveLength(5);
      }),
    );
  });
});
