import { expect, test } from 'vitest';
import { CONTROL_TEMPLATES } from '../arrange/controlTemplates.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { readBuild, readBuildText } from '../rules/document.ts';
import { InputError } from '../words/errors.ts';
import type { Condition } from './condition.ts';
import {
  addFunction,
  changeFunction,
  controlsFailure,
  removeFunction,
  withControls,
} from './controlEdits.ts';
import { darkCue, newFunction } from './functions.ts';
import type { Build } from './schema.ts';

const car = demoBuild('ks-13');
const asks = (condition: Condition, id = 'stage-2'): Build =>
  changeFunction(car, id, { when: { way: 'while', condition, afterMs: 0, staysMs: 0 } });
const on = (functionId: string): Condition => ({ kind: 'on', functionId });
const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });
const deep = (n: number): Condition => (n === 0 ? is('gear', 'park') : { kind: 'not', of: deep(n - 1) });
const [panel] = car.controls.panels;
if (panel === undefined) throw new Error('the demo car has a panel');
const [slide] = panel.controls;
if (slide === undefined) throw new Error('its panel has a control');

test.each<[string, Build, RegExp]>([
  ['a function that is not there', asks(on('ghost')), /when\.condition: no function 'ghost'/],
  ['an input that is not there', asks(is('ghost', 'on')), /no input 'ghost'/],
  ['a value that is none', asks(is('gear', 'fifth')), /'gear' is never 'fifth', only park, reverse/],
  ['a ring', asks(on('hatch-supplement')), /functions wait for each other: "[^"]+" → "[^"]+" → "/],
  ['a condition too deep', asks(deep(9)), /goes more than 6 deep/],
  [
    'values at rest that are forbidden',
    withControls(car, { never: [{ when: is('gear', 'park'), then: is('ignition', 'on') }] }),
    /never\[0\]: excludes the default values/,
  ],
  [
    'two controls on one place',
    withControls(car, {
      panels: [{ ...panel, controls: panel.controls.map((c) => ({ ...c, row: 1, column: 1, page: 1 })) }],
    }),
    /controls\[1\]: is in the same cell as/,
  ],
  [
    'a label too long for its key',
    withControls(car, {
      panels: [
        { ...panel, controls: [{ ...slide, label: 'much too long a label' }, ...panel.controls.slice(1)] },
      ],
    }),
    /label: must be at most 12 characters/,
  ],
  [
    'a while in a choice',
    changeFunction(car, 'stage-2', { choiceId: 'c' }),
    /choiceId: only what is remembered can be one of a choice/,
  ],
  [
    'what is always on, enabled by something',
    changeFunction(car, 'stage-2', { when: { way: 'always' }, enabledBy: is('gear', 'park') }),
    /enabledBy: a function that is always on cannot be enabled/,
  ],
  [
    'a cue to a set that is not there',
    changeFunction(car, 'stage-2', {
      shows: [{ cues: [darkCue({ kind: 'set', setId: 'ghost' })], dims: [], loads: [] }],
    }),
    /target: no set 'ghost'/,
  ],
  [
    'a load that is not there',
    changeFunction(car, 'stage-2', {
      shows: [{ cues: [], dims: [], loads: [{ loadId: 'ghost', value: 'on' }] }],
    }),
    /no load 'ghost'/,
  ],
  [
    'a press of what is no button',
    changeFunction(car, 'white', {
      when: {
        way: 'latched',
        sets: [{ kind: 'press', control: 'slide', press: 'short' }],
        clears: [],
        toggles: [],
        timeoutMs: 0,
      },
    }),
    /sets\[0\]: no button 'slide'/,
  ],
  [
    'several shows without a cycle',
    changeFunction(car, 'stage-2', {
      shows: [
        { cues: [], dims: [], loads: [] },
        { cues: [], dims: [], loads: [] },
      ],
    }),
    /shows: only a cycle has more than one/,
  ],
])('%s is refused with its place', (_, build, message) => {
  expect(() => readBuild(build)).toThrow(InputError);
  expect(() => readBuild(build)).toThrow(message);
});

test('more cues than can be checked are one error', () => {
  const cues = Array.from({ length: 64 }, () => darkCue({ kind: 'ungrouped' }));
  const many = withControls(car, {
    functions: car.controls.functions.map((fn) =>
      fn.when.way === 'cycle'
        ? { ...fn, shows: Array.from({ length: 8 }, () => ({ cues, dims: [], loads: [] })) }
        : { ...fn, shows: [{ cues, dims: [], loads: [] }] },
    ),
  });
  const more = {
    ...many,
    controls: {
      ...many.controls,
      functions: [
        ...many.controls.functions,
        ...many.controls.functions.map((fn) => ({ ...fn, id: `${fn.id}-again` })),
      ],
    },
  };
  expect(() => readBuild(more)).toThrow(/controls\.functions: have 2688 cues; at most 1500 can be checked/);
});

test('what is nested without end is one error', () => {
  const deepest = `${'{"kind":"not","of":'.repeat(50_000)}1${'}'.repeat(50_000)}`;
  const text = JSON.stringify(car).replace(/"enabledBy":null/, `"enabledBy":${deepest}`);
  expect(() => readBuildText(text)).toThrow('the build file is nested more than 64 deep');
});

test('a part that the vehicle does not have is never open, and no fault', () => {
  const build = asks(is('part.tail-lift', 'tail-lift'));
  expect(readBuild(build)).toEqual(build);
});

test('what the schema refuses is refused before it is kept', () => {
  expect(controlsFailure(car)).toBeNull();
  expect(controlsFailure(changeFunction(car, 'fog', { label: '<b>' }))).toBe(
    'label must be one line without < or >',
  );
  expect(controlsFailure(changeFunction(car, 'fog', { choiceId: 'a b' }))).toMatch(
    /^choiceId must be 1 to 64/,
  );
});

test('what cannot be is told by names, of what would be gone as well', () => {
  const asking = addFunction(
    car,
    newFunction(
      'asks',
      'Somebody asks',
      'light',
      { way: 'while', condition: { kind: 'on', functionId: 'fog' }, afterMs: 0, staysMs: 0 },
      [],
    ),
  );
  const name = car.controls.functions.find(({ id }) => id === 'fog')?.name;
  expect(controlsFailure(removeFunction(asking, 'fog'), asking)).toBe(
    `“Somebody asks”: no function “${name}”`,
  );
});

test('a function that is taken away leaves no flasher that stops for it', () => {
  const signal = newFunction('turn', 'Turn', 'signal', { way: 'always' }, []);
  const added = addFunction(car, signal, 0);
  const stops = { ...added, placements: added.placements.map((p) => ({ ...p, stopsFor: ['turn'] })) };
  expect(readBuild(stops)).toEqual(stops);
  const gone = removeFunction(stops, 'turn');
  expect(readBuild(gone)).toEqual(gone);
  expect(() => readBuild({ ...car, placements: stops.placements })).toThrow(
    /stopsFor\[0\]: no function 'turn'/,
  );
});

test('a trial in which a twin is moved is read; the twin is no input of a condition', () => {
  const rear = CONTROL_TEMPLATES.find((t) => t.id === 'rear-panel')?.applyTemplate(car) ?? car;
  const moved = (value: string): Build =>
    withControls(rear, {
      trials: [
        {
          id: 't',
          name: 'T',
          steps: [{ kind: 'event', event: { kind: 'arrives', input: 'rear-slide', value } }],
          on: [],
        },
      ],
    });
  expect(readBuild(moved('2')).controls.trials).toHaveLength(1);
  expect(() => readBuild(moved('9'))).toThrow(/steps\[0\]: 'slide' is never '9'/);
  expect(() =>
    readBuild(
      changeFunction(rear, 'stage-2', {
        when: { way: 'while', condition: is('rear-slide', '2'), afterMs: 0, staysMs: 0 },
      }),
    ),
  ).toThrow(/no input 'rear-slide'/);
});
