import { beforeEach, expect, test, vi } from 'vitest';
import { editing } from '$lib/editor/editing.testing';
import { onKey, SHORTCUTS } from './shortcuts';

/** As much of an element as keys ask for: what it is, and whether it lies in a dialog. */
class Place {
  readonly #is: string;
  readonly #inDialog: boolean;
  constructor(is: string, inDialog = false) {
    this.#is = is;
    this.#inDialog = inDialog;
  }
  matches = (selector: string): boolean => selector.split(', ').some((one) => one.startsWith(this.#is));
  closest = (): Place | null => (this.#inDialog ? this : null);
}

const open = editing();
const opened: string[] = [];
const dialogs = { keys: () => void opened.push('keys'), finder: () => void opened.push('finder') };
beforeEach(() => {
  vi.stubGlobal('Element', Place);
  opened.length = 0;
});

/** Presses a key; says whether the browser was kept from what it does with it. */
function press(key: string, { ctrlKey = false, shiftKey = false, on = new Place('body') } = {}): boolean {
  let kept = false;
  const event = { key, ctrlKey, metaKey: false, shiftKey, target: on, preventDefault: () => (kept = true) };
  Reflect.apply(onKey, null, [event, open.editor, dialogs]);
  return kept;
}

test('stages by number, day and night, the hatch', () => {
  const { editor } = open;
  expect(press('3')).toBe(true);
  expect(editor.state.on).toEqual(['stage-3']);
  press('0');
  expect(editor.state.on).toEqual(['off']);
  expect(press('7')).toBe(false);
  press('D');
  expect(editor.state.ambient).toBe('night');
  press('h');
  expect(editor.state.open).toEqual(['hatch']);
});

test('while one walks round, the numbers go there', () => {
  const { editor } = open;
  const walked: number[] = [];
  editor.walk = (position) => void walked.push(position);
  press('7');
  press('1');
  expect(walked).toEqual([7, 1]);
  press('0');
  expect(editor.state.on).toEqual(['off']);
});

test('in a field letters are typed; the finder and Escape work there too', () => {
  const { editor } = open;
  const field = new Place('textarea');
  const before = editor.state;
  expect(press('3', { on: field })).toBe(false);
  expect(press('a', { ctrlKey: true, on: field })).toBe(false);
  expect(editor.state).toBe(before);
  expect(press('k', { ctrlKey: true, on: field })).toBe(true);
  expect(opened).toEqual(['finder']);
  editor.carry = { fixtureId: 'x', at: null };
  press('Escape', { on: field });
  expect(editor.carry).toBeNull();
});

test('a dialog has its own keys', () => {
  const { editor } = open;
  expect(press('3', { on: new Place('div', true) })).toBe(false);
  expect(editor.state.on).not.toEqual(['stage-3']);
  expect(press('?')).toBe(true);
  expect(opened).toEqual(['keys']);
});

test('undo and redo, by either key', () => {
  const { editor } = open;
  editor.edit('Name', (b) => ({ ...b, name: 'Other' }));
  press('z', { ctrlKey: true });
  expect(editor.build.name).not.toBe('Other');
  press('y', { ctrlKey: true });
  expect(editor.build.name).toBe('Other');
  press('Z', { ctrlKey: true });
  press('Z', { ctrlKey: true, shiftKey: true });
  expect(editor.build.name).toBe('Other');
  expect(press('z')).toBe(false);
});

test('all lamps at once; the next change of light', () => {
  const { editor } = open;
  press('a', { ctrlKey: true });
  expect(editor.selection.size).toBe(editor.build.placements.length);
  press('3');
  press('.');
  const at = editor.preview.timeMs;
  expect(at).toBeGreaterThan(0);
  press('.');
  expect(editor.preview.timeMs).toBeGreaterThan(at);
  press(',');
  expect(editor.preview.timeMs).toBe(at);
});

test('the preview is not played before its notice was read, nor by a button that Space presses', () => {
  const { editor } = open;
  press(' ');
  expect(editor.preview.playing).toBe(false);
  for (const { keys, does } of SHORTCUTS) expect(`${keys}${does}`).not.toMatch(/undefined/);
});
