import { expect, test } from 'vitest';
import { demoBuild, DEMO_BUILDS } from '../../../test/reference/demo.ts';
import { ofKind } from '../../../test/reference/places.ts';
import { changeFunction, putPanel } from '../../design/controlEdits.ts';
import type { Condition } from '../../design/condition.ts';
import type { Control } from '../../design/panel.ts';
import type { Build } from '../../design/schema.ts';

const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });
const any = (...of: Condition[]): Condition => ({ kind: 'any', of });
const all = (...of: Condition[]): Condition => ({ kind: 'all', of });
const command = demoBuild('incident-command');

/** The command vehicle with a switch of its own at the rear, no twin of the slide. */
const withSwitch = (twinOf: string | null): Build => {
  const rear = command.controls.panels.find(({ name }) => name === 'Rear panel');
  const slide = command.controls.panels.flatMap((p) => p.controls).find(({ id }) => id === 'slide');
  if (rear === undefined || slide === undefined) throw new Error('both are there');
  const own: Control = { ...slide, id: 'rear-slide', label: 'Rear', twinOf };
  return putPanel(command, {
    ...rear,
    controls: rear.controls.map((c) => (c.id === 'rear-slide' ? own : c)),
  });
};
const said = (condition: Condition, twinOf: string | null = null): string[] =>
  ofKind(
    changeFunction(withSwitch(twinOf), 'stage-3', {
      when: { way: 'while', condition, afterMs: 0, staysMs: 0 },
    }),
    'leads',
  ).map((f) => f.sentence);

test('two switches of different panels, each enough by itself: neither leads', () => {
  expect(said(any(is('slide', '3'), is('rear-slide', '3')))).toEqual([
    '“Warning” of Switch panel and “Rear” of Rear panel each keep Stage 3 on. Neither overrides the other. Make one the twin of the other, or define which has priority.',
  ]);
  expect(
    said(all(is('ignition', 'on'), any(is('gear', 'park'), is('slide', '3'), is('rear-slide', '3')))),
  ).toHaveLength(1);
});

test('twins, one panel, all of several, or a condition that says who leads: nothing to tell', () => {
  expect(said(any(is('slide', '3'), is('rear-slide', '3')), 'slide')).toEqual([]);
  expect(said(any(is('slide', '3'), is('slide', '2')))).toEqual([]);
  expect(said(all(is('slide', '3'), is('rear-slide', '3')))).toEqual([]);
  expect(said(any(is('slide', '3'), is('gear', 'park')))).toEqual([]);
  expect(said(any(is('slide', '3'), all(is('slide', 'off'), is('rear-slide', '3'))))).toEqual([]);
});

test.each(DEMO_BUILDS)('%s says who leads', (name) => {
  expect(ofKind(demoBuild(name), 'leads')).toEqual([]);
  expect(ofKind(demoBuild(name), 'twins')).toEqual([]);
});
