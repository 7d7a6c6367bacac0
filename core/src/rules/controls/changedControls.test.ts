import { expect, test } from 'vitest';
import { demoBuild } from '../../../test/reference/demo.ts';
import { controlsOf } from '../../controls/controlChanges.ts';
import { withControls } from '../../design/controlEdits.ts';
import type { PreviousControl } from '../../design/controls.ts';
import { LayoutSubject } from '../layout/subject.ts';
import { changedControls } from './changedControls.ts';

const car = demoBuild('ks-13');
const [siren] = controlsOf(car, 'siren');
if (siren === undefined) throw new Error('a key works the siren');
const { kind, label, column, row } = siren.control;
const asItIs: PreviousControl = { id: 'old-siren', kind, label, column, row, functionIds: ['siren'] };
const told = (...oldPanel: PreviousControl[]) =>
  changedControls(new LayoutSubject(withControls(car, { oldPanel }))).map(
    ({ subjects, sentence }) => `${subjects.map(({ id }) => id).join()}: ${sentence}`,
  );

test('what hands are used to is told with all that changed, what stayed is not', () =>
  expect(
    told(
      asItIs,
      { ...asItIs, id: 'moved', label: 'Wail', column: column + 1 },
      { ...asItIs, id: 'gone', label: '', functionIds: [] },
    ),
  ).toEqual([
    `moved: “Wail” differs from the old panel: label “${label}” instead of “Wail”; row ${row}, column ${column} of Switch panel instead of row ${row}, column ${column + 1}.`,
    `gone: “${kind}” differs from the old panel: no new control has this effect.`,
  ]));
