import { changeFunction } from '../design/controlEdits.ts';
import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { darkCue, lightCue, newFunction, shown } from '../design/functions.ts';
import { programRows, PROGRAM_COLUMNS } from './programRows.ts';
import { timeText, Wording } from './sentence.ts';

const car = demoBuild('ks-13');
const say = new Wording(car);

describe('conditions as sentences', () => {
  test.each([
    [{ kind: 'is', input: 'gear', values: ['park', 'neutral'] }, 'Gear is park or neutral'],
    [{ kind: 'not', of: { kind: 'on', functionId: 'stage-2' } }, 'Stage 2 is not on'],
    [{ kind: 'not', of: { kind: 'is', input: 'gear', values: ['park'] } }, 'Gear is not park'],
    [{ kind: 'is', input: 'part.hatch', values: ['hatch'] }, 'Hatch is open'],
    [
      {
        kind: 'all',
        of: [
          { kind: 'is', input: 'brake', values: ['down'] },
          {
            kind: 'any',
            of: [
              { kind: 'on', functionId: 'stage-2' },
              { kind: 'on', functionId: 'stage-3' },
            ],
          },
        ],
      },
      'Brake is down and (Stage 2 is on or Stage 3 is on)',
    ],
    [
      {
        kind: 'not',
        of: {
          kind: 'any',
          of: [
            { kind: 'on', functionId: 'stage-2' },
            { kind: 'on', functionId: 'fog' },
          ],
        },
      },
      'not (Stage 2 is on or Fog cancel is on)',
    ],
  ] as const)('%j', (condition, sentence) => expect(say.condition(condition)).toBe(sentence));
});

test('events by the label of their key, and by where an input goes', () => {
  expect(say.event({ kind: 'press', control: 'key-white', press: 'short' })).toBe('“White” is pressed');
  expect(say.event({ kind: 'press', control: 'key-white', press: 'long' })).toBe('“White” is held');
  expect(say.event({ kind: 'chord', controls: ['key-white', 'key-siren'] })).toBe(
    '“White” and “Siren” are pressed together',
  );
  expect(say.event({ kind: 'arrives', input: 'slide', value: '2' })).toBe('Warning goes to 2');
});

test('when a function is on, by each way, with its times', () => {
  const inDrive = { kind: 'is', input: 'gear', values: ['drive'] } as const;
  const press = [{ kind: 'press', control: 'key-white', press: 'short' } as const];
  const when = (way: Parameters<typeof newFunction>[3], more = {}) =>
    say.when(newFunction('f', 'F', 'warning', way, [], more));
  expect(when({ way: 'always' })).toBe('always');
  expect(when({ way: 'while', condition: inDrive, afterMs: 1000, staysMs: 5000 })).toBe(
    'while Gear is drive; starts after 1 s; stays 5 s longer',
  );
  expect(
    when(
      { way: 'latched', sets: [], clears: press, toggles: press, timeoutMs: 600_000 },
      { enabledBy: inDrive, forgets: true },
    ),
  ).toBe(
    'off when “White” is pressed; on and off when “White” is pressed; it switches off automatically after 10 min; only while Gear is drive, then it resets',
  );
  expect(
    when(
      { way: 'cycle', sets: [], steps: press, clears: [], wraps: 'first', timeoutMs: 0 },
      { shows: [shown([]), shown([])] },
    ),
  ).toBe('the next of 2 when “White” is pressed, round and round');
});

test('what a function takes and lights', () => {
  const rear = { kind: 'group', groupId: 'rear' } as const;
  const fn = newFunction('f', 'F', 'warning', { way: 'always' }, [
    lightCue(rear, 'red', 'double', { nightLevel: 0.5 }),
    darkCue({ kind: 'ungrouped' }, ['white']),
  ]);
  expect(say.takes(fn)).toBe('lights Rear; takes white from lamps in no group');
  expect(fn.shows[0]?.cues.map((cue) => say.cue(cue))).toEqual([
    'Double flash in red, 50 % at night',
    'no white',
  ]);
  expect(say.takes(newFunction('g', 'G', 'warning', { way: 'always' }, []))).toBe('shows nothing yet');
});

test('times as people say them', () =>
  expect([250, 1000, 2500, 1234, 600_000].map(timeText)).toEqual([
    '250 ms',
    '1 s',
    '2.5 s',
    '1234 ms',
    '10 min',
  ]));

test('the table has a row for each cue, strongest first, and no cell that a spreadsheet would run', () => {
  const evil = {
    ...car,
    controls: {
      ...car.controls,
      functions: car.controls.functions.map((fn) => (fn.id === 'fog' ? { ...fn, name: '=1+1' } : fn)),
    },
  };
  const rows = programRows(evil);
  expect(rows.every((row) => row.length === PROGRAM_COLUMNS.length)).toBe(true);
  expect(rows.map((row) => Number(row[0]))).toEqual(
    rows.map((row) => Number(row[0])).toSorted((a, b) => a - b),
  );
  expect(rows.some((row) => row[1] === "'=1+1")).toBe(true);
  // What shows nothing, as Off, still has a row.
  const lines = car.controls.functions.flatMap((fn) =>
    fn.shows.map((s) => Math.max(1, s.cues.length + s.loads.length)),
  );
  expect(rows).toHaveLength(lines.reduce((a, b) => a + b, 0));
});

test('the table tells a cue’s share of light by day and by night', () => {
  const [fn] = car.controls.functions.filter(({ shows }) => shows[0]?.cues[0]?.show === 'light');
  const [first] = fn?.shows[0]?.cues ?? [];
  if (fn === undefined || first?.show !== 'light') throw new Error('the car lights nothing');
  const dim = changeFunction(car, fn.id, { shows: [shown([{ ...first, level: 0.5, nightLevel: 0.4 }])] });
  const [row] = programRows(dim).filter(([, name]) => name === fn.name);
  expect(row?.slice(-2)).toEqual(['50', '20']);
});
