import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { ofKind } from '../../test/reference/places.ts';
import { removeFunction, withControls } from '../design/controlEdits.ts';
import type { PreviousControl } from '../design/controls.ts';
import type { Build } from '../design/schema.ts';
import { controlsOf, controlChanges, previousPanelFrom } from './controlChanges.ts';

const car = demoBuild('ks-13');
const [siren] = controlsOf(car, 'siren');
if (siren === undefined) throw new Error('a key works the siren');
const asItIs: PreviousControl = {
  id: 'old-siren',
  kind: siren.control.kind,
  label: siren.control.label,
  column: siren.control.column,
  row: siren.control.row,
  functionIds: ['siren'],
};
const used = (patch: Partial<PreviousControl>): Build =>
  withControls(car, { oldPanel: [{ ...asItIs, ...patch }] });
const changes = (patch: Partial<PreviousControl>): readonly string[] =>
  controlChanges(used(patch))[0]?.changes ?? [];

test('a control that stays where it was is no change', () => {
  expect(changes({})).toEqual([]);
  expect(changes({ label: siren.control.label.toUpperCase() })).toEqual([]);
  expect(ofKind(used({}), 'habit')).toEqual([]);
});

test('another place, name or kind is told; so is what nothing does any more', () => {
  const { column, row, label } = siren.control;
  expect(changes({ column: column + 1, label: 'Wail', kind: 'pull' })).toEqual([
    'a button now, where a pull was',
    `label “${label}” instead of “Wail”`,
    `row ${row}, column ${column} of Switch panel instead of row ${row}, column ${column + 1}`,
  ]);
  expect(changes({ functionIds: [] })).toEqual(['no new control has this effect']);
  expect(changes({ functionIds: [], kind: 'spare' })).toEqual([]);
  expect(ofKind(used({ label: 'Wail' }), 'habit').map((f) => f.severity)).toEqual(['advises']);
});

test('of several controls that do it now the most alike counts', () => {
  expect(changes({ functionIds: ['siren', 'stage-2'] })).toEqual([]);
});

test('a function that goes leaves the old panel too', () => {
  expect(removeFunction(used({}), 'siren').controls.oldPanel[0]?.functionIds).toEqual([]);
});

test('a panel put down as the old one has nothing that moved', () => {
  const [panel] = car.controls.panels;
  if (panel === undefined) throw new Error('the car has a panel');
  let n = 0;
  const build = withControls(car, { oldPanel: previousPanelFrom(car, panel, () => `old-${++n}`) });
  expect(build.controls.oldPanel).toHaveLength(panel.controls.length);
  expect(controlChanges(build).filter((h) => h.changes.length > 0)).toEqual([]);
});
