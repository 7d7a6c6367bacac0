import { expect, test } from 'vitest';
import { demoBuild } from '../../../test/reference/demo.ts';
import { ofKind } from '../../../test/reference/places.ts';
import { putPanel } from '../../design/controlEdits.ts';
import type { Control, Panel } from '../../design/panel.ts';
import type { Build } from '../../design/schema.ts';

const command = demoBuild('incident-command');
const rear = command.controls.panels.find(({ name }) => name === 'Rear panel');
if (rear === undefined) throw new Error('the command vehicle has a rear panel');
const changed = (change: (controls: readonly Control[]) => readonly Control[]): Build => {
  const panel: Panel = { ...rear, controls: [...change(rear.controls)] };
  return putPanel(command, panel);
};
const keyed = (id: string, patch: (c: Control) => Control): Build =>
  changed((controls) => controls.map((c) => (c.id === id ? patch(c) : c)));
const said = (build: Build): string[] => ofKind(build, 'twins').map((f) => f.sentence);

test('a second panel that is the first one over again is silent', () => {
  expect(rear.controls.length).toBeGreaterThan(8);
  expect(said(command)).toEqual([]);
});

test('a twin with another label, or a lamp that shows something else, is told', () => {
  expect(said(keyed('rear-key-white', (c) => ({ ...c, label: 'Flood' })))).toEqual([
    '“Flood” on Rear panel is the twin of “White” on Switch panel, but the labels differ.',
  ]);
  expect(said(keyed('rear-key-white', (c) => ({ ...c, label: ' WHITE ' })))).toEqual([]);
  const lamp = (c: Control): Control =>
    c.kind === 'button' ? { ...c, lamp: { functionId: 'siren', colour: 'red' } } : c;
  expect(said(keyed('rear-key-white', lamp))).toEqual([
    '“White” on Rear panel is the twin of “White” on Switch panel, but their indicators differ.',
  ]);
});

test('a panel that lacks a little of the other is told what; one that is meant for less is not', () => {
  expect(said(changed((all) => all.filter(({ id }) => id !== 'rear-key-siren')))).toEqual([
    'Rear panel repeats most of Switch panel. Missing: “Siren”.',
  ]);
  expect(said(changed((all) => all.slice(0, 3)))).toEqual([]);
  expect(said(changed(() => []))).toEqual([]);
});

test('keys in another order are told, from the first that stands elsewhere', () => {
  const [a, b] = ['rear-key-white', 'rear-key-siren'].map((id) => rear.controls.find((c) => c.id === id));
  if (a === undefined || b === undefined) throw new Error('both keys are there');
  const swapped = changed((all) =>
    all.map((c) =>
      c === a ? { ...c, column: b.column, row: b.row } : c === b ? { ...c, column: a.column, row: a.row } : c,
    ),
  );
  expect(said(swapped)).toEqual([
    'The key order on Rear panel differs from Switch panel, starting at “White”. Operators may press the wrong key.',
  ]);
});
